import { shallowReactive } from 'vue'
import type { Change } from '#core/job/change'
import type { FieldPath } from '#core/job/document'
import type { Saving } from '#core/sync/saving'

type Steps = readonly (readonly Change[])[]

/**
 * An open job: the state of its saving, its unread text, and its undo steps.
 */
export interface OpenJob {
  saving: Saving
  typing: Readonly<Record<FieldPath, string>>
  undo: Steps
  redo: Steps
  lastEdit: { readonly path: string; readonly at: number }
  timer: ReturnType<typeof setTimeout> | undefined
  /** The browser had no room left for the draft. */
  full: boolean
  notice: string
  /** The craft it belongs to; empty while that is not known. */
  craft: string
}

export const openJob = (saving: Saving, more: Partial<OpenJob> = {}): OpenJob =>
  shallowReactive({
    saving,
    typing: {},
    undo: [],
    redo: [],
    lastEdit: { path: '', at: 0 },
    timer: undefined,
    full: false,
    notice: '',
    craft: '',
    ...more,
  })
