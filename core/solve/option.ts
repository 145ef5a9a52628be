import type { JobDocument, PartPath } from '#core/job/document'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { Supply } from '#core/remedies/remedy'
import type { ShelfPart } from '#core/shelf/kinds'
import type { Finding } from '#core/assessment/assess'
import type { System } from '#core/system/system'

/** A shelf battery and its count in parallel. */
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

/** The options of one decision. */
export interface Axis {
  readonly about: PartPath
  readonly options: readonly Option[]
}

/** Inputs of the decisions: the unchanged job, its blocking findings, and the shelf. */
export interface Ground {
  readonly job: JobDocument
  /** Unknowns get typical values. */
  readonly system: System
  readonly findings: readonly Finding[]
  /** Findings that block for all plausible values; the others only might. */
  readonly certain: ReadonlySet<Finding>
  readonly shelf: readonly ShelfPart[]
}

/** Most sizes of one kind of unit that are set side by side. */
export const mostSizes = 4

export const keep = (words: string): Option => ({ words, steps: [] })
export const option = (words: string, ...steps: Option['steps']): Option => ({ words, steps })
/** A remedy with the first offer of the shelf, if any. */
export const bare = (ref: RemedyRef): Option['steps'][number] => ({ ref, supply: null })

/** The topic of a check: the part of its id before the dot. */
export const topicOf = ({ id }: Pick<Finding, 'id'>): string => id.slice(0, id.indexOf('.'))
