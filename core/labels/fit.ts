import { partKinds, type PartKind, type PartKindId } from '#core/job/fields'
import type { Unit } from '#core/units/units'
import type { Concept } from './concepts'
import type { Told } from './line'
import { isRound, type LabelRule } from './rules'

const systems = [12, 24, 48] as const

/** Whether a value in a unit, with words that mean these things, falls under a rule. */
const fitsRule = (unit: Unit, concepts: ReadonlySet<Concept>, rule: LabelRule): boolean => {
  if (rule.unit !== unit) return false
  const has = (one: Concept): boolean => concepts.has(one)
  if (rule.none?.some(has) || !(rule.all ?? []).every(has)) return false
  if (rule.any?.some(has)) return true
  return rule.any
    ? rule.bare === true && !needsWords(concepts)
    : (rule.all?.length ?? 0) > 0 || rule.bare === true
}
/** The rule that a value in a unit falls under by the words before it; undefined if none. */
export const ruleFor = (
  unit: Unit,
  concepts: ReadonlySet<Concept>,
  rules: readonly LabelRule[],
): LabelRule | undefined => rules.find((rule) => fitsRule(unit, concepts, rule))

/** Words that name a value: a value with them is not a bare one. */
const needsWords = (concepts: ReadonlySet<Concept>): boolean =>
  [...concepts].some(
    (one) => !['nominal', 'voltage', 'current', 'power', 'capacity', 'model', 'most'].includes(one),
  )

/** A value as one of the fields of a part. */
export interface Given {
  readonly rule: LabelRule
  readonly told: Told
  readonly field: string
  readonly value: number | string
  readonly doubt: string
}

/** The nominal voltage that a printed one stands for; null if none. */
function choiceOf(choices: Readonly<Record<string, readonly number[]>>, printed: number): string | null {
  return (
    Object.entries(choices).find(([, printings]) =>
      printings.some((one) => Math.abs(one - printed) < 0.06),
    )?.[0] ?? null
  )
}

/** A value whose decimal point was lost, where its usual range leaves one choice; else null. */
function repaired(isWhole: boolean, at: number, isUsual: (value: number) => boolean): number | null {
  if (!isWhole || isUsual(at)) return null
  const fitting = [at / 10, at / 100].filter(isUsual)
  return fitting.length === 1 ? (fitting[0] ?? null) : null
}

export const lostPoint = 'A decimal point was put in'
const unusual = 'Unusual here'

/**
 * The fields that a value gives by the rules of its part.
 * @param nominal nominal voltage of the system, V; null if it is not known
 */
export function given(one: Told, rules: readonly LabelRule[], nominal: number | null): Given[] {
  const rule = ruleFor(one.value.unit, one.concepts, rules)
  if (!rule || one.value.isAc) return []
  const scales = rule.scales ? (nominal ? [nominal / 12] : systems.map((system) => system / 12)) : [1]
  const isUsual = (value: number): boolean =>
    scales.some((scale) => value >= rule.usual[0] * scale - 1e-9 && value <= rule.usual[1] * scale + 1e-9)
  const take = (field: string | undefined, printed: number, isWhole: boolean): Given[] => {
    if (!field) return []
    if (rule.choices) {
      const mended = choiceOf(rule.choices, printed) ? printed : printed / 10
      const value = one.isOneOfSeveral ? null : choiceOf(rule.choices, mended)
      return value ? [{ rule, told: one, field, value, doubt: mended === printed ? '' : lostPoint }] : []
    }
    const mended = repaired(isWhole, printed, isUsual)
    const value = mended ?? printed
    const doubt =
      mended !== null
        ? lostPoint
        : !isUsual(value)
          ? unusual
          : rule.round && !isRound(value, rule.unit)
            ? 'No usual size'
            : rule.isDoubtful
              ? 'It may mean something else'
              : ''
    return [{ rule, told: one, field, value, doubt }]
  }
  const { low, high, isWhole } = one.value
  if (low === high) return take(rule.field, low, isWhole[0])
  if (rule.low && rule.high) return [...take(rule.low, low, isWhole[0]), ...take(rule.high, high, isWhole[1])]
  const system = rule.choices ? systemAround(low, high) : null
  return system && rule.field ? [{ rule, told: one, field: rule.field, value: system, doubt: '' }] : []
}

/** The system whose voltages lie in a range, as of an input of 11 to 16 V; null if none or several. */
function systemAround(low: number, high: number): string | null {
  const fitting = systems.filter(
    (system) => low >= system * 0.7 && low <= system * 1.05 && high >= system && high <= system * 1.5,
  )
  return fitting.length === 1 ? String(fitting[0]) : null
}

/** Whether a value may stand in a field at all. */
export function isAllowed(part: PartKindId, { field, value }: Given): boolean {
  const asked = (partKinds[part] as PartKind).fields[field]
  if (!asked) return false
  if (asked.type === 'choice') return Object.hasOwn(asked.options, value)
  return (
    asked.type === 'quantity' &&
    typeof value === 'number' &&
    value >= asked.limits[0] &&
    value <= asked.limits[1]
  )
}
