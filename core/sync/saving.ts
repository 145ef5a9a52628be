import { dequal } from 'dequal/lite'
import type { Change } from '#core/job/change'
import { applyChanges, changesBetween, conflictsBetween, type Conflict } from '#core/job/changes'
import type { JobDocument } from '#core/job/document'

/** A job unchanged on the server. */
export interface Stored {
  readonly version: number
  /** Of the data of the server: it is another one after a backup was brought back. */
  readonly epoch?: string | undefined
  readonly document: JobDocument
  readonly updatedAt: string
  readonly updatedBy: string
}

/** Two people changed the same things: what stands on the server, and where it meets what was done here. */
export interface OpenConflict {
  readonly theirs: Stored
  readonly mine: readonly Change[]
  readonly conflicts: readonly Conflict[]
}

/** What kept the last save from arriving. */
export type Trouble = { readonly kind: 'unreachable' } | { readonly kind: 'refused'; readonly error: string }

/**
 * How the saving of one job stands. Every job has a state of its own, so that a save on its way keeps nothing
 * else waiting. What is pending is what differs between `base` and `document`.
 */
export interface Saving {
  /** The job as the server had it when the pending changes began, and the version that was. */
  readonly base: JobDocument
  readonly version: number
  readonly epoch: string | undefined
  /** The job unchanged here. */
  readonly document: JobDocument
  /** What is on its way to the server. */
  readonly sent: JobDocument | null
  /** What was sent without an answer: any of it may have arrived. */
  readonly unsure: readonly JobDocument[]
  readonly conflict: OpenConflict | null
  readonly trouble: Trouble | null
  /** What someone else changed meanwhile and is joined in here, to be told. */
  readonly joined: { readonly by: string; readonly values: number } | null
}

export type SavingEvent =
  | { readonly kind: 'edited'; readonly document: JobDocument }
  | { readonly kind: 'sending' }
  | { readonly kind: 'acknowledged'; readonly version: number }
  /** The server has another version than the one the change was made on. */
  | { readonly kind: 'overtaken'; readonly theirs: Stored }
  | { readonly kind: 'failed'; readonly trouble: Trouble }
  | { readonly kind: 'resolved'; readonly keepMine: (conflict: Conflict) => boolean }
  | { readonly kind: 'told' }

/** A job as it came from the server: nothing pending. */
export const opened = ({
  version,
  epoch,
  document,
}: Pick<Stored, 'version' | 'epoch' | 'document'>): Saving => ({
  base: document,
  version,
  epoch,
  document,
  sent: null,
  unsure: [],
  conflict: null,
  trouble: null,
  joined: null,
})

/** Changes that are here and not on the server yet. */
export const pendingOf = ({ base, document }: Saving): readonly Change[] =>
  base === document ? [] : changesBetween(base, document)

/** Nothing is pending, and nothing that was sent can have arrived unseen. */
const isSettled = (saving: Saving): boolean => saving.unsure.length === 0 && pendingOf(saving).length === 0

/**
 * What should be sent now, and the version it is a change of; null when nothing is pending, something is on
 * its way, or a choice is awaited.
 */
export function toSend(saving: Saving): Pick<Saving, 'version' | 'epoch' | 'document'> | null {
  if (saving.sent || saving.conflict || isSettled(saving)) return null
  return { version: saving.version, epoch: saving.epoch, document: saving.document }
}

/** How it stands, in one word. */
export function stateOf(
  saving: Saving,
): 'saved' | 'saving' | 'unsaved' | 'unreachable' | 'refused' | 'conflict' {
  if (saving.conflict) return 'conflict'
  if (saving.sent) return 'saving'
  if (isSettled(saving)) return 'saved'
  return saving.trouble?.kind ?? 'unsaved'
}

/** The state that follows an event. Pure: the same state and event give the same state. */
export function after(saving: Saving, event: SavingEvent): Saving {
  switch (event.kind) {
    case 'edited':
      return { ...saving, document: event.document, trouble: null }
    case 'sending':
      return { ...saving, sent: saving.document, trouble: null }
    case 'acknowledged':
      return saving.sent
        ? { ...saving, base: saving.sent, version: event.version, sent: null, unsure: [] }
        : saving
    case 'overtaken':
      return overtaken({ ...saving, sent: null }, event.theirs)
    case 'failed':
      return { ...saving, sent: null, trouble: event.trouble, unsure: unsureAfter(saving, event.trouble) }
    case 'resolved':
      return resolved(saving, event.keepMine)
    case 'told':
      return { ...saving, joined: null }
  }
}

/** A refusal says that nothing was saved; a connection that failed says nothing. */
const unsureAfter = ({ unsure, sent }: Saving, trouble: Trouble): readonly JobDocument[] =>
  trouble.kind === 'unreachable' && sent ? [...unsure, sent] : unsure

/** Whether two changes come to the same. */
const agree = (a: Change, b: Change): boolean => a.path === b.path && dequal(a.after, b.after)

/**
 * What was sent without an answer and turns out to have arrived: everything it changed stands on the server.
 */
function arrivedUnseen({ base, unsure }: Saving, others: readonly Change[]): JobDocument | undefined {
  return unsure.findLast((sent) =>
    changesBetween(base, sent).every((own) => others.some((other) => agree(own, other))),
  )
}

/**
 * Someone else saved first. What does not meet is joined, and told; what does waits for a choice. What
 * agrees is nobody else's.
 */
function overtaken(before: Saving, theirs: Stored): Saving {
  const arrived = arrivedUnseen(before, changesBetween(before.base, theirs.document))
  const saving: Saving = { ...before, base: arrived ?? before.base, unsure: [] }
  const mine = pendingOf(saving)
  const others = changesBetween(saving.base, theirs.document)
  const conflicts = conflictsBetween(mine, others)
  if (conflicts.length > 0) return { ...saving, conflict: { theirs, mine, conflicts } }
  const foreign = others.filter((change) => !mine.some((own) => agree(own, change)))
  return {
    ...takenOver(saving, theirs, mine),
    joined: foreign.length > 0 ? { by: theirs.updatedBy, values: foreign.length } : saving.joined,
  }
}

/** Ends a conflict: for each path, whose value stands. What was edited since it opened is kept. */
function resolved(saving: Saving, keepMine: (conflict: Conflict) => boolean): Saving {
  const { conflict } = saving
  if (!conflict) return saving
  const dropped = new Set(conflict.conflicts.filter((c) => !keepMine(c)).map((c) => c.mine.path))
  const mine = pendingOf(saving).filter((change) => !dropped.has(change.path))
  return { ...takenOver(saving, conflict.theirs, mine), conflict: null }
}

const takenOver = (saving: Saving, theirs: Stored, mine: readonly Change[]): Saving => ({
  ...saving,
  base: theirs.document,
  version: theirs.version,
  epoch: theirs.epoch,
  document: applyChanges(theirs.document, mine),
})
