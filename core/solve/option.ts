import type { JobDocument, PartPath } from '#core/job/document'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { Supply } from '#core/remedies/remedy'
import type { ShelfPart } from '#core/shelf/kinds'
import type { Finding } from '#core/assessment/assess'
import type { System } from '#core/system/system'

/** A battery of the shelf and how many of them stand in parallel. */
export interface Battery {
  readonly part: ShelfPart
  readonly parallel: number
}

/** One decision of a combination: nothing, or some remedies that belong together, under one name. */
export interface Option {
  readonly words: string
  readonly steps: readonly { readonly ref: RemedyRef; readonly supply: Supply | null }[]
  /** Another battery of the shelf in place of the candidate. */
  readonly battery?: Battery
}

/** What can be decided about one thing, in several ways. */
export interface Axis {
  readonly about: PartPath
  readonly options: readonly Option[]
}

/** What there is to decide from: the job unchanged, what stands in its way, and the shelf. */
export interface Ground {
  readonly job: JobDocument
  /** Values unknown are taken as typical. */
  readonly system: System
  readonly findings: readonly Finding[]
  /** Those that stand in the way whatever is still measured; the others only may. */
  readonly certain: ReadonlySet<Finding>
  readonly shelf: readonly ShelfPart[]
}

/** Most sizes of one kind of unit that are set side by side. */
export const mostSizes = 4

export const keep = (words: string): Option => ({ words, steps: [] })
export const option = (words: string, ...steps: Option['steps']): Option => ({ words, steps })
/** A remedy that takes what the shelf offers first, if anything. */
export const bare = (ref: RemedyRef): Option['steps'][number] => ({ ref, supply: null })

/** The topic of a check: what stands before the dot of its id. */
export const topicOf = ({ id }: Pick<Finding, 'id'>): string => id.slice(0, id.indexOf('.'))
