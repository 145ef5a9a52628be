import { dequal } from 'dequal/lite'
import type { Change } from '#core/job/change'
import { applyChanges, changesBetween, conflictsBetween, inverseOf, type Conflict } from '#core/job/changes'
import type { JobDocument } from '#core/job/document'
import { unmade, type Place, type SaveOrder } from './order'

/** A job as it stands on the server. */
export interface Stored {
  readonly version: number
  readonly epoch?: string | undefined
  readonly document: JobDocument
  readonly updatedAt: string
  readonly updatedBy: string
}

/** Two people changed the same values: the job on the server, and where it differs from the changes here. */
interface OpenConflict {
  readonly theirs: Stored
  readonly mine: readonly Change[]
  readonly conflicts: readonly Conflict[]
}

/** Why the last save did not arrive. */
type Trouble =
  | { readonly kind: 'unreachable' }
  | { readonly kind: 'refused'; readonly error: string }
  /** The job was deleted elsewhere. */
  | { readonly kind: 'gone' }

/** An order that was sent. */
export interface Sent {
  readonly change: string
  readonly document: JobDocument
}

/**
 * The saving of one job. Every job has a state of its own, so a save on its way delays nothing else. Pending
 * is the difference between `base` and `document`.
 */
export interface Saving {
  /** The job on the server when the pending changes began, and its version. */
  readonly base: JobDocument
  readonly version: number
  readonly epoch: string | undefined
  /** The job here. */
  readonly document: JobDocument
  /** The order on its way to the server. */
  readonly sent: Sent | null
  /** Orders without an answer: any of them may have arrived. */
  readonly unsure: readonly Sent[]
  readonly conflict: OpenConflict | null
  readonly trouble: Trouble | null
  /** Changes of somebody else that were merged in here and are to be told. */
  readonly joined: { readonly by: string; readonly values: number } | null
}

export type SavingEvent =
  | { readonly kind: 'edited'; readonly document: JobDocument }
  /** An order leaves under an id that no other order has. */
  | { readonly kind: 'sending'; readonly change: string }
  /** The order is saved. The server may have changed it, as the number of a new job. */
  | ({ readonly kind: 'acknowledged'; readonly document?: JobDocument | undefined } & Place)
  /** The server has another version than the one the change was made on. */
  | { readonly kind: 'overtaken'; readonly theirs: Stored; readonly arrived: string | null }
  /** Somebody else saved this job. */
  | { readonly kind: 'news'; readonly theirs: Stored }
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

/** A job that was made here and is on no server yet. */
export const madeHere = (document: JobDocument): Saving => opened({ version: unmade, document })

/** Changes that are here and not on the server yet. */
export const pendingOf = ({ base, document }: Pick<Saving, 'base' | 'document'>): readonly Change[] =>
  base === document ? [] : changesBetween(base, document)

/** How many changes wait to be sent. A job that is on no server yet is one itself. */
export const waitingIn = (saving: Pick<Saving, 'base' | 'document' | 'version'>): number =>
  pendingOf(saving).length + (saving.version === unmade ? 1 : 0)

/** Nothing is pending, and no order can have arrived unseen. */
const isSettled = (saving: Saving): boolean =>
  saving.version !== unmade && saving.unsure.length === 0 && pendingOf(saving).length === 0

/**
 * The order to send now, without its id; null when nothing is pending, an order is on its way, a choice is
 * awaited, or the job was deleted.
 */
export function toSend(saving: Saving): Omit<SaveOrder, 'change'> | null {
  if (saving.sent || saving.conflict || saving.trouble?.kind === 'gone' || isSettled(saving)) return null
  const { version, epoch, document, unsure } = saving
  return { version, epoch, document, unsure: unsure.map(({ change }) => change) }
}

/** The state in one word. */
export function stateOf(
  saving: Saving,
): 'saved' | 'saving' | 'unsaved' | 'unreachable' | 'refused' | 'gone' | 'conflict' {
  if (saving.conflict) return 'conflict'
  if (saving.sent) return 'saving'
  if (saving.trouble?.kind === 'gone') return 'gone'
  if (isSettled(saving)) return 'saved'
  return saving.trouble?.kind ?? 'unsaved'
}

/** The state that follows an event. Pure: the same state and event give the same state. */
export function after(saving: Saving, event: SavingEvent): Saving {
  switch (event.kind) {
    case 'edited': {
      // A job that was deleted stays so, whatever is typed.
      const trouble = saving.trouble?.kind === 'gone' ? saving.trouble : null
      const edited = { ...saving, document: event.document, trouble }
      // The choice that is open is about the values that are here now.
      return saving.conflict ? overtaken(edited, saving.conflict.theirs, null) : edited
    }
    case 'sending':
      return { ...saving, sent: { change: event.change, document: saving.document }, trouble: null }
    case 'acknowledged':
      return saving.sent ? acknowledged(saving, saving.sent, event) : saving
    case 'overtaken':
      return overtaken(saving, event.theirs, event.arrived)
    case 'news': {
      // A job that was deleted and restored goes on.
      const known = saving.trouble?.kind === 'gone' ? { ...saving, trouble: null } : saving
      return isNews(known, event.theirs) ? overtaken(known, event.theirs, null) : known
    }
    case 'failed':
      return { ...saving, sent: null, trouble: event.trouble, unsure: unsureAfter(saving, event.trouble) }
    case 'resolved':
      return resolved(saving, event.keepMine)
    case 'told':
      return { ...saving, joined: null }
  }
}

/** The saving that a reload begins with: an order that was on its way may have arrived. */
export const reloaded = (saving: Saving): Saving => ({
  ...saving,
  sent: null,
  unsure: saving.sent ? [...saving.unsure, saving.sent] : saving.unsure,
  conflict: null,
  trouble: null,
  joined: null,
})

function acknowledged(
  saving: Saving,
  sent: Sent,
  { version, epoch, document }: Place & { readonly document?: JobDocument | undefined },
): Saving {
  return {
    ...saving,
    base: document ?? sent.document,
    version,
    epoch: epoch ?? saving.epoch,
    document: document
      ? applyChanges(document, changesBetween(sent.document, saving.document))
      : saving.document,
    sent: null,
    unsure: [],
  }
}

/** A refusal says that nothing was saved; a connection that failed says nothing. */
const unsureAfter = ({ unsure, sent }: Saving, trouble: Trouble): readonly Sent[] =>
  trouble.kind === 'unreachable' && sent ? [...unsure, sent] : unsure

/** Whether a version is new here. While an order has no answer, only the server can tell it from that order. */
const isNews = (saving: Saving, theirs: Stored): boolean =>
  !saving.sent &&
  saving.unsure.length === 0 &&
  !saving.conflict &&
  saving.version !== unmade &&
  (theirs.version > saving.version || theirs.epoch !== saving.epoch)

/** Whether two changes come to the same. */
const agree = (a: Change, b: Change): boolean => a.path === b.path && dequal(a.after, b.after)

/**
 * Where changes here need a choice. On a job that was handed over meanwhile, every change does: it is offered on
 * top of the finished job.
 */
function choicesFor(base: JobDocument, mine: readonly Change[], theirs: JobDocument): readonly Conflict[] {
  const others = changesBetween(base, theirs)
  const conflicts = conflictsBetween(mine, others)
  if (theirs.job.stage !== 'done' || base.job.stage === 'done') return conflicts
  const offered = mine
    .filter((change) => !conflicts.some((conflict) => conflict.mine === change))
    .filter((change) => !others.some((other) => agree(change, other)))
    .map((change) => {
      const { path, before } = change
      const unchanged = before === undefined ? { path } : { path, before, after: before }
      return { path, mine: change, theirs: unchanged }
    })
  return [...conflicts, ...offered]
}

/**
 * Somebody else saved first. Changes of other values are merged and told; changes of the same value wait for a
 * choice. A change that both made is nobody else's.
 */
function overtaken(before: Saving, theirs: Stored, arrived: string | null): Saving {
  const sent = before.sent ? [...before.unsure, before.sent] : before.unsure
  const base = sent.find(({ change }) => change === arrived)?.document ?? before.base
  const saving: Saving = { ...before, base, sent: null, unsure: [], conflict: null }
  const mine = pendingOf(saving)
  const conflicts = choicesFor(base, mine, theirs.document)
  if (conflicts.length > 0) return { ...saving, conflict: { theirs, mine, conflicts } }
  const foreign = changesBetween(base, theirs.document).filter(
    (change) => !mine.some((own) => agree(own, change)),
  )
  return {
    ...takenOver(saving, theirs, mine),
    joined: foreign.length > 0 ? { by: theirs.updatedBy, values: foreign.length } : saving.joined,
  }
}

/** Whether somebody took out the part that a change is in. */
const isInRemoved = ({ mine, theirs }: Conflict): boolean =>
  theirs.after === undefined && mine.path.startsWith(`${theirs.path}/`)

/**
 * Ends a conflict: for each path, whose value stands. A part that was taken out comes back with a value kept in it.
 */
function resolved(saving: Saving, keepMine: (conflict: Conflict) => boolean): Saving {
  const { conflict } = saving
  if (!conflict) return saving
  const dropped = new Set(conflict.conflicts.filter((c) => !keepMine(c)).map((c) => c.mine.path))
  const mine = pendingOf(saving).filter((change) => !dropped.has(change.path))
  const restored = conflict.conflicts
    .filter((c) => isInRemoved(c) && !dropped.has(c.mine.path))
    .map(({ theirs }) => theirs)
  return { ...takenOver(saving, conflict.theirs, [...inverseOf(restored), ...mine]), conflict: null }
}

const takenOver = (saving: Saving, theirs: Stored, mine: readonly Change[]): Saving => ({
  ...saving,
  base: theirs.document,
  version: theirs.version,
  epoch: theirs.epoch,
  document: applyChanges(theirs.document, mine),
})
