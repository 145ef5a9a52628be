import { ref } from 'vue'
import type { Change } from '#core/job/change'
import type { JobDocument } from '#core/job/document'
import { changeUpToDate, upToDate } from '#core/job/migrations/index'
import type { Saving } from '#core/sync/saving'
import { windowId } from './windows'

/**
 * Changes of a job that have not reached the server, as one window of this browser keeps them. They are in the
 * local storage, which writes before the key is up: a reload in that moment loses nothing.
 */
export interface UnsavedDraft extends Pick<Saving, 'version' | 'epoch' | 'base' | 'document' | 'unsure'> {
  readonly job: string
  /** The window that keeps it. */
  readonly window: string
  /** The person who made the changes; empty on one machine. */
  readonly owner: string
  /** Text in fields that could not be read as a value, by field path. */
  readonly typing: Readonly<Record<string, string>>
  readonly undo: readonly (readonly Change[])[]
}

/** Counts changes of the drafts in this window. */
export const draftChanges = ref(0)

const prefix = 'jovial-anchor.draft.'
const keyOf = (job: string, window: string): string => `${prefix}${job}.${window}`

const jobUpToDate = (job: JobDocument): JobDocument => upToDate(job as never) as unknown as JobDocument
/** A draft that an older version of the application kept. */
const upToDateDraft = (draft: UnsavedDraft): UnsavedDraft => ({
  ...draft,
  base: jobUpToDate(draft.base),
  document: jobUpToDate(draft.document),
  unsure: draft.unsure.map(({ change, document }) => ({ change, document: jobUpToDate(document) })),
  undo: draft.undo.map((changes) => changes.map(changeUpToDate)),
})

function readAt(key: string): UnsavedDraft | null {
  try {
    const draft = JSON.parse(localStorage.getItem(key) ?? '') as UnsavedDraft
    return upToDateDraft(draft)
  } catch {
    return null
  }
}

/** Drafts of the version before this one, which were of no person and of no window. */
export function adoptEarlierDrafts(owner: string): void {
  for (const key of keys()) {
    const job = key.slice(prefix.length)
    if (job.includes('.')) continue
    try {
      const draft = JSON.parse(localStorage.getItem(key) ?? '') as UnsavedDraft
      localStorage.setItem(
        keyOf(job, 'earlier'),
        JSON.stringify({ ...draft, job, owner, window: 'earlier', unsure: [] }),
      )
      localStorage.removeItem(key)
    } catch {
      // Broken, or no room: it stays as it is.
    }
  }
}

const keys = (): string[] =>
  Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i) ?? '').filter((key) =>
    key.startsWith(prefix),
  )

/** All drafts in this browser, those of this window first. */
export function allDrafts(): readonly UnsavedDraft[] {
  return keys()
    .map(readAt)
    .filter((draft) => draft !== null)
    .sort((a, b) => Number(b.window === windowId()) - Number(a.window === windowId()))
}

/** The drafts of a person in this browser. */
export const draftsBy = (owner: string): readonly UnsavedDraft[] =>
  allDrafts().filter((draft) => draft.owner === owner)

/** False when the browser has no room left: the person must be told. */
export function keepDraft(draft: Omit<UnsavedDraft, 'window'>): boolean {
  const kept = { ...draft, window: windowId() }
  const key = keyOf(draft.job, windowId())
  draftChanges.value++
  // The steps of undo can be missed; the changes cannot.
  for (const undo of [kept.undo, []]) {
    try {
      localStorage.setItem(key, JSON.stringify({ ...kept, undo }))
      return true
    } catch {
      continue
    }
  }
  return false
}

/** Makes a draft of an ended window one of this window. */
export function takeOver(draft: UnsavedDraft): void {
  if (draft.window === windowId()) return
  if (keepDraft(draft)) dropDraft(draft.job, draft.window)
}

export function dropDraft(job: string, window = windowId()): void {
  localStorage.removeItem(keyOf(job, window))
  draftChanges.value++
}
