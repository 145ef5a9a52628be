import type { Change } from '#core/job/change'
import type { JobDocument } from '#core/job/document'
import { changeUpToDate, upToDate } from '#core/job/migrations/index'

/** What was typed on this device and has not reached the server, kept in the browser. */
export interface UnsavedDraft {
  readonly version: number
  readonly epoch?: string | undefined
  /** The job as the server had it when the changes began. */
  readonly base: JobDocument
  readonly document: JobDocument
  /** What was sent without an answer: any of it may have arrived. */
  readonly unsure?: readonly JobDocument[]
  /** Text in fields that could not be read as a value, by field path. */
  readonly typing: Readonly<Record<string, string>>
  readonly undo: readonly (readonly Change[])[]
}

/** A draft that an older version of the application kept. */
const upToDateDraft = (draft: UnsavedDraft): UnsavedDraft => ({
  ...draft,
  base: jobUpToDate(draft.base),
  document: jobUpToDate(draft.document),
  unsure: draft.unsure?.map(jobUpToDate),
  undo: draft.undo.map((changes) => changes.map(changeUpToDate)),
})
const jobUpToDate = (job: JobDocument): JobDocument => upToDate(job as never) as unknown as JobDocument

const key = (jobId: string): string => `jovial-anchor.draft.${jobId}`

export function readDraft(jobId: string): UnsavedDraft | null {
  const text = localStorage.getItem(key(jobId))
  if (text === null) return null
  try {
    return upToDateDraft(JSON.parse(text) as UnsavedDraft)
  } catch {
    return null
  }
}

/** False when the browser has no room left: the person must be told. */
export function keepDraft(jobId: string, draft: UnsavedDraft): boolean {
  try {
    localStorage.setItem(key(jobId), JSON.stringify(draft))
    return true
  } catch {
    return false
  }
}

export const dropDraft = (jobId: string): void => localStorage.removeItem(key(jobId))
