import type { ListedPart } from '#core/job/specified'
import type { Wanted } from '#core/wiring/lists'
import type { ShelfPart } from '#core/shelf/kinds'
import type { Answer } from './answer'

/** A part of an answer as a row, with the figures that distinguish cables, fuses and switches. */
interface PartRow {
  readonly kind: string | null
  readonly code: string
  readonly name: string
  readonly quantity: number
  readonly unit: '' | 'm'
  readonly price: number | null
  readonly areaMm2?: number
  readonly fuseFamily?: string
  readonly ratedA?: number
}

/** An answer as a row, from the core alone. */
interface AnswerRow {
  readonly name: string
  readonly verdict: Answer['verdict']
  readonly cost: number
  readonly unpriced: number
  /** Labour, h. */
  readonly hours: number
  readonly conditions: Answer['conditions']
  readonly accepted: readonly string[]
  readonly steps: readonly {
    readonly id: string
    readonly on: string
    readonly label: string
    readonly parts: readonly PartRow[]
  }[]
  /** Everything to buy: the battery, the parts of the steps, the wiring. */
  readonly parts: readonly PartRow[]
}

const numberOf = (value: unknown): number | undefined => (typeof value === 'number' ? value : undefined)

/** Distinguishing figures of a part: from its shelf data, otherwise from the request. */
function figuresOf(
  kind: string | null,
  values: Readonly<Record<string, unknown>>,
): Pick<PartRow, 'areaMm2' | 'fuseFamily' | 'ratedA'> {
  const areaMm2 = numberOf(values.areaMm2)
  const ratedA =
    numberOf(values.fuseA) ??
    numberOf(values.ratedA) ??
    (kind === 'switches' ? numberOf(values.continuousA) : undefined)
  return {
    ...(areaMm2 === undefined ? {} : { areaMm2 }),
    ...(typeof values.fuseKind === 'string' ? { fuseFamily: values.fuseKind } : {}),
    ...(ratedA === undefined ? {} : { ratedA }),
  }
}

function partRow(part: ListedPart, shelf: readonly ShelfPart[], wanted: Wanted | null = null): PartRow {
  const { code, name, quantity, unit, price } = part
  const kind = part.kind ?? wanted?.kind ?? null
  const known = shelf.find((one) => one.kind === part.kind && one.code === code)
  return {
    kind,
    code,
    name,
    quantity,
    unit,
    price,
    ...figuresOf(kind, known?.values ?? { ...wanted?.least, ...wanted?.exactly }),
  }
}

/** Answers as rows, in the order in which they are shown. */
export const answerRows = (answers: readonly Answer[], shelf: readonly ShelfPart[]): AnswerRow[] =>
  answers.map(({ name, verdict, figures, conditions, accepted, steps, bank, wiring }) => {
    const stepRows = steps.map(({ ref, label, parts }) => ({
      id: ref.id,
      on: ref.on,
      label,
      parts: parts.map((part) => partRow(part, shelf)),
    }))
    return {
      name,
      verdict,
      cost: Math.round(figures.cost * 100) / 100,
      unpriced: figures.unpriced,
      hours: Math.round(figures.hours * 100) / 100,
      conditions,
      accepted,
      steps: stepRows,
      parts: [
        ...bank.map((part) => partRow(part, shelf)),
        ...stepRows.flatMap((step) => step.parts),
        ...wiring.parts.map((part, i) => partRow(part, shelf, wiring.wanted[i])),
      ],
    }
  })
