import type { RuleId, ShopRules } from '#core/rules/rules'
import type { Unit } from '#core/units/units'

/** How a value is known, best first. */
export const howKnown = {
  measured: 'measured',
  maker: 'maker’s data',
  label: 'read from label',
  customer: 'customer says',
  assumed: 'assumed',
} as const
export type How = keyof typeof howKnown

/** A surveyed value. `value: null` is "still unknown". */
export interface Known<T> {
  readonly value: T | null
  readonly how?: How
  /** For a measured value: when (ISO date-time) and by whom. */
  readonly when?: string
  readonly by?: string
  /** The job of the same craft that it was taken from, in words: `job 0417, as fitted`. */
  readonly from?: string
}

export type Range = readonly [low: number, high: number]

/** Inputs of a plausible range: the known values of the same part. */
interface RangeContext {
  /** The known number of a sibling field, or null. */
  readonly number: (field: string) => number | null
  /** The known choice of a sibling field, or null. */
  readonly choice: (field: string) => string | null
}

/** Inputs of a computed default: the part's other values, known or not, and the rules. */
interface DefaultContext {
  readonly value: (field: string) => number
  readonly rules: ShopRules
}

interface FieldBase {
  readonly label: string
  /** How to find or measure it, in a line. */
  readonly measure: string
  /** How it is usually known; measured where left out. */
  readonly how?: How
  /** How long finding it out takes, min; a few if nothing is said: see {@link minutesToFind}. */
  readonly minutes?: number
  /** The value of an empty field, if that is more than “none”. */
  readonly absent?: string
  /** Seldom needed: folded away until it is known or matters. */
  readonly detail?: true
  /** Its default is a decision of the plan and no fact to find out: a bad verdict may rest on it. */
  readonly isDecision?: true
  /** Asked only when each of these sibling fields holds one of the values, or is unknown yet. */
  readonly when?: readonly Condition[]
}

/** How a value is usually known: measured, unless its field says otherwise. */
export const usualHow = ({ how = 'measured' }: FieldBase): How => how

/** Fields that are usually known in the same way, but for those that say otherwise. */
export const usuallyFrom = <F extends Fields>(how: How, fields: F): F =>
  Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, { how, ...field }])) as F

/** Fields whose defaults are decisions of the plan: all of them, unless some are named. See `isDecision`. */
export const withDecisions = <F extends Fields>(
  fields: F,
  names: readonly (keyof F)[] = Object.keys(fields),
): F =>
  Object.fromEntries(
    Object.entries(fields).map(([name, field]) => [
      name,
      names.includes(name) ? { ...field, isDecision: true } : field,
    ]),
  ) as F

/** Minutes that a look at a label or a reading with the meter takes. */
const usualMinutes = 10
/** Time to find a value out, min: an estimate for the worth of the measurement. */
export const minutesToFind = ({ minutes = usualMinutes }: FieldBase): number => minutes

export interface Condition {
  readonly field: string
  readonly is: readonly string[]
}

export interface QuantityField extends FieldBase {
  readonly type: 'quantity'
  readonly unit: Unit
  /** Possible values, in the stored unit; others are refused. */
  readonly limits: Range
  /** Step of the arrow keys. */
  readonly step: number
  /** Range to check over while it is unknown. For voltages of a 12 V system: see `scales`. */
  readonly plausible: Range | ((at: RangeContext) => Range)
  /** Plausible range and default are for 12 V and grow with the part's nominal voltage. */
  readonly scales?: true
  /**
   * Used instead of a range if nothing is given: a shop rule, a number, computed from the part, or null
   * for none.
   */
  readonly otherwise?: RuleId | number | null | ((at: DefaultContext) => number)
  /** Its computed default is the least that the maker may say, and no figure to rest a bad verdict on. */
  readonly isLeast?: true
  /** While the sibling holds one of these values, only a measured value counts as known. */
  readonly onlyMeasuredWhen?: Condition
}

/** Whether a quantity counts things: 2.5 of them there are not. */
export const isCount = ({ unit, step }: Pick<QuantityField, 'unit' | 'step'>): boolean =>
  unit === '' && step === 1

/** A quantity that may be absent: a limit that nobody sets, a test that nobody made. */
interface OptionalField extends QuantityField {
  readonly otherwise: null
}

export interface ChoiceField<O extends string = string> extends FieldBase {
  readonly type: 'choice'
  readonly options: Readonly<Record<O, string>>
  /** The value if the maker's data give none. */
  readonly otherwise?: NoInfer<O>
}

/** A column of a table that is written as text, each row `25 at 14.4`. */
export interface Column {
  readonly name: string
  /** The heading of the column. */
  readonly label: string
  readonly unit: Unit
  readonly limits: Range
}
/** Several readings of one thing: minutes at volts on a drive, the rested voltage of each battery. */
export interface RowsField<C extends string = string> extends FieldBase {
  readonly type: 'rows'
  readonly columns: readonly (Column & { readonly name: C })[]
  /** The separator of the columns when written. */
  readonly between: string
}

export type Field = QuantityField | ChoiceField | RowsField
export type Fields = Readonly<Record<string, Field>>

export type ValueOf<F> =
  F extends ChoiceField<infer O>
    ? O
    : F extends RowsField<infer C>
      ? readonly Readonly<Record<C, number>>[]
      : F extends OptionalField
        ? number | null
        : number
/** A part as it is surveyed: every field may be missing or unknown. */
export type Surveyed<F extends Fields> = { readonly [K in keyof F]?: Known<ValueOf<F[K]>> }
/** A part as a check reads it: every field has a value; rows may be missing. */
export type Resolved<F extends Fields> = {
  readonly [K in keyof F]: F[K] extends RowsField ? ValueOf<F[K]> | null : ValueOf<F[K]>
}

export const quantity = (
  label: string,
  unit: Unit,
  step: number,
  limits: Range,
  plausible: QuantityField['plausible'],
  measure: string,
  more: Partial<
    Pick<
      QuantityField,
      'when' | 'detail' | 'how' | 'minutes' | 'scales' | 'otherwise' | 'isLeast' | 'onlyMeasuredWhen'
    >
  > = {},
): QuantityField => ({ type: 'quantity', label, unit, step, limits, plausible, measure, ...more })

/** A quantity that is absent if nothing is entered: it reads as null. */
export const optional = (
  label: string,
  unit: Unit,
  step: number,
  limits: Range,
  plausible: QuantityField['plausible'],
  measure: string,
  more: Partial<Pick<QuantityField, 'when' | 'detail' | 'how' | 'minutes' | 'absent'>> = {},
): OptionalField => ({ ...quantity(label, unit, step, limits, plausible, measure, more), otherwise: null })

export const choice = <const O extends string>(
  label: string,
  options: Readonly<Record<O, string>>,
  measure: string,
  more: Partial<Pick<ChoiceField<O>, 'when' | 'detail' | 'how' | 'minutes' | 'otherwise' | 'absent'>> = {},
): ChoiceField<O> => ({ type: 'choice', label, options, measure, ...more })

export const volts = (
  label: string,
  plausible: QuantityField['plausible'],
  measure: string,
  more: Partial<
    Pick<QuantityField, 'when' | 'detail' | 'how' | 'minutes' | 'otherwise' | 'isLeast' | 'onlyMeasuredWhen'>
  > = {},
): QuantityField => quantity(label, 'V', 0.1, [0, 80], plausible, measure, { scales: true, ...more })

export const yesNo = (
  label: string,
  measure: string,
  more: Partial<
    Pick<ChoiceField<'yes' | 'no'>, 'when' | 'detail' | 'how' | 'minutes' | 'otherwise' | 'absent'>
  > = {},
): ChoiceField<'yes' | 'no'> => choice(label, { yes: 'Yes', no: 'No' }, measure, more)

export const rows = <const C extends string>(
  label: string,
  columns: readonly (Column & { readonly name: C })[],
  between: string,
  measure: string,
  more: Partial<Pick<RowsField, 'when' | 'detail' | 'how' | 'minutes'>> = {},
): RowsField<C> => ({ type: 'rows', label, columns, between, measure, ...more })

/** A row of readings by column name. */
export type Row = Readonly<Record<string, number>>

/** Holds the fields to a condition on top of their own. */
export const onlyWhen = <F extends Fields>(condition: Condition, fields: F): F =>
  Object.fromEntries(
    Object.entries(fields).map(([id, field]) => [id, { ...field, when: [condition, ...(field.when ?? [])] }]),
  ) as unknown as F

export const systemVoltages = { 12: '12 V', 24: '24 V', 48: '48 V' } as const

export const leadKinds = {
  flooded: 'Flooded',
  calcium: 'Calcium',
  agm: 'AGM',
  gel: 'Gel',
  lithium: 'Lithium',
} as const
