import { withAssumed, type JobDocument, type PartPath } from '#core/job/document'
import type { Known, PartKindId } from '#core/job/fields'
import type { ListedPart } from '#core/job/specified'
import type { ShelfKindId, ShelfPart } from '#core/shelf/kinds'
import type { System } from '#core/system/system'
import type { Write } from '#core/units/format'

/** A remedy asked for: on which part, with its value if it has one. */
export interface RemedyOrder {
  readonly on: PartPath
  readonly value?: number
  /** Parts that it takes the place of. */
  readonly replaces?: readonly PartPath[]
  /** Further values, by field, that the remedy sets. */
  readonly values?: Readonly<Record<string, number | string>>
}

/** A remedy asked for with a value. */
export type ValuedOrder = RemedyOrder & { readonly value: number }

/**
 * The effect of a remedy with its value.
 * @throws if it has no value
 */
export const valued =
  <Rest extends readonly unknown[], T>(work: (order: ValuedOrder, ...rest: Rest) => T) =>
  (order: RemedyOrder, ...rest: Rest): T => {
    const { value } = order
    if (value === undefined) throw new Error(`A remedy on ${order.on} was asked for without its value`)
    return work({ ...order, value }, ...rest)
  }

/**
 * One way of carrying a remedy out: the part to buy, and its data for the part of the job.
 */
export interface Supply {
  readonly parts: readonly ListedPart[]
  readonly values: Readonly<Record<string, unknown>>
}

/** The shelf part of a remedy. */
export interface Want {
  readonly kind: ShelfKindId
  readonly fits: (part: ShelfPart, order: RemedyOrder, system: System) => boolean
  /** The preferred part among those that fit: smaller first. The cheapest if there is no preference. */
  readonly order?: (part: ShelfPart, order: RemedyOrder) => number
  /** The kind of part that takes the values of its data sheet. */
  readonly into?: PartKindId
  /** A value of its data sheet that a field of the remedy’s own part takes, where that is a part of another kind. */
  readonly fills?: { readonly field: string; readonly from: string }
  readonly quantity?: (job: JobDocument) => number
  /** Its name if the shelf has none. */
  readonly otherwise: string
}

/**
 * The kind of a remedy: a setting, a part, other wiring, another place, a way of use, or a line on the customer’s
 * paper.
 */
type RemedyKind = 'setting' | 'part' | 'wiring' | 'place' | 'use' | 'paper'

export interface Remedy {
  readonly kind: RemedyKind
  /** Its name, with its number. */
  readonly label: (order: RemedyOrder, q: Write) => string
  /** Its needs besides time, and usual working hours by survey; 0 for a line on a paper. */
  readonly takes: string
  readonly hours: number
  /** The job with the remedy applied; null for one that changes nothing that is surveyed. */
  readonly effect: ((order: RemedyOrder, job: JobDocument) => JobDocument) | null
  /**
   * Its part: from the shelf, or by its name if no shelf of this trade lists it. Nothing if it needs no part.
   */
  readonly wants?: Want | string | ((order: RemedyOrder) => Want)
  /** Supplied in a way of its own. */
  readonly supply?: (order: RemedyOrder, job: JobDocument, shelf: readonly ShelfPart[]) => Supply
  /** The field its value goes to, where it can be set by hand. */
  readonly adjusts?: string
  /**
   * It chooses another arrangement. Only a decision of the search applies it, not a follow-up.
   */
  readonly arrangement?: true
  /** The part whose decision takes it up or leaves it, where that is another than the one it is on. */
  readonly decidedOn?: PartPath
  /** It rests on a place or a strength that nobody has seen yet. */
  readonly unseen?: true
  /** Where two ask for it with a current, the smaller meets both. */
  readonly smallerMeetsBoth?: true
  /** Where two ask for it with a size, the larger meets both. */
  readonly largerMeetsBoth?: true
  /** It weighs this much that an answer is named after it. */
  readonly namesAnswer?: true
  /** A new DC-DC in place of the same link makes it needless. */
  readonly needlessWithDcdc?: true
  /** One shunt monitor serves all that ask for one. */
  readonly monitors?: true
}

export const assumed = (value: number | string): Known<number | string> => ({ value, how: 'assumed' })

/** Sets fields of the remedy's part. */
export const set =
  (values: (order: RemedyOrder) => Readonly<Record<string, number | string>>) =>
  (order: RemedyOrder, job: JobDocument): JobDocument =>
    withAssumed(job, order.on, values(order))

/** Sets one field to the value of the remedy. */
export const setValue = (field: string) => set(valued(({ value }) => ({ [field]: value })))

/** Settings of a charging unit for lithium. */
export const lithiumStages = {
  profile: 'lithium',
  floatMode: 'off',
  equaliseStage: 'off',
  compensation: 'off',
} as const
