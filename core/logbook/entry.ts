import type { LogQuantityId } from './quantities'

export const entryKinds = {
  visit: 'Visit',
  reading: 'Reading',
  replaced: 'Part replaced',
  deviation: 'Left open',
  note: 'Note',
  photo: 'Photograph',
} as const
export type EntryKind = keyof typeof entryKinds
/** Kinds of an entry that words and numbers alone make: a photograph comes with its picture. */
export const writtenKinds = (Object.keys(entryKinds) as EntryKind[]).filter((kind) => kind !== 'photo')

export const entrySources = {
  typed: 'typed',
  prove: 'from Prove',
  test: 'from a test',
  csv: 'from a file',
} as const
type EntrySource = keyof typeof entrySources

/** The content of an entry. Fields that its kind does not use are null or empty. */
export interface EntryBody {
  readonly kind: EntryKind
  /** When it was read or done, ISO date-time. */
  readonly at: string
  /** Of a reading. */
  readonly quantity: LogQuantityId | null
  /** The read or replaced part: `W1`, `House bank`. */
  readonly subject: string
  /** In the unit of the quantity. */
  readonly value: number | null
  /** Value that was predicted, or the value when new; null if nobody said. */
  readonly expected: number | null
  /** Half width of the range around the value or the expected value. */
  readonly tolerance: number | null
  readonly words: string
  /** Of a replaced part: its serial number and the last day of its warranty, ISO date. */
  readonly serial: string
  readonly warrantyEnd: string | null
  /** The entry that this one corrects or settles. */
  readonly corrects: string | null
  readonly source: EntrySource
}

/** An entry of a logbook. Entries are only added: a correction is a new entry that names the old one. */
export interface LogEntry extends EntryBody {
  readonly id: string
  readonly by: string
  /** When it was added, ISO date-time. */
  readonly addedAt: string
  /** The job it was made in; null if none. */
  readonly job: string | null
}

const blank: Omit<EntryBody, 'kind' | 'at' | 'source'> = {
  quantity: null,
  subject: '',
  value: null,
  expected: null,
  tolerance: null,
  words: '',
  serial: '',
  warrantyEnd: null,
  corrects: null,
}

/** An entry with the given values; the rest is empty. */
export const entryOf = (
  given: Pick<EntryBody, 'kind' | 'at' | 'source'> & Partial<EntryBody>,
): EntryBody => ({ ...blank, ...given })

/** Entries that no later entry corrects, oldest first. */
export function standingEntries(entries: readonly LogEntry[]): LogEntry[] {
  const corrected = new Set(entries.flatMap(({ corrects }) => corrects ?? []))
  return entries
    .filter(({ id }) => !corrected.has(id))
    .toSorted((a, b) => a.at.localeCompare(b.at) || a.addedAt.localeCompare(b.addedAt))
}
