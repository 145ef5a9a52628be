import { defineStore } from 'pinia'
import { computed, ref, shallowReactive } from 'vue'
import { applyChanges, changesBetween, inverseOf, type Conflict } from '#core/job/changes'
import { atStage } from '#core/job/stage'
import { stages, type FieldPath, type JobDocument, type Stage } from '#core/job/document'
import { unmade } from '#core/sync/order'
import {
  after,
  madeHere,
  opened,
  reloaded,
  stateOf,
  toSend,
  waitingIn,
  type SavingEvent,
} from '#core/sync/saving'
import { savedBy, signedAs, useDeviceName } from '../composables/device'
import { draftsBy, dropDraft, keepDraft, takeOver, type UnsavedDraft } from '../device/drafts'
import { forgetJob, keepJob, keptJob } from '../device/jobs'
import { endedWindows } from '../device/windows'
import { asJson, ask, isNotFound, type Answer, type HistoryEntry, type StoredJob } from '../utils/api'
import { useAccount } from './account'
import { editsOf } from './job-edits'
import { openJob, type OpenJob } from './open-job'

type SaveState =
  | { readonly kind: 'saved' | 'saving' | 'unsaved' | 'unreachable' | 'conflict' | 'gone' | 'full' }
  | { readonly kind: 'refused'; readonly error: string }

const saveDelayMs = 500
const retryMs = 2000
const joinEditsMs = 1500
const mostUndo = 200

/** The server's answer to a save. It includes the document if the server created the job. */
type SavedJob = Omit<StoredJob, 'document'> & Partial<Pick<StoredJob, 'document'>>

/**
 * The job on the bench: its document, and the way to the server and back. Every job is saved by itself,
 * whichever is looked at.
 */
export const useJob = defineStore('job', () => {
  const who = useDeviceName()
  const account = useAccount()
  const id = ref('')
  const jobs = shallowReactive(new Map<string, OpenJob>())
  const here = computed(() => jobs.get(id.value) ?? null)

  const document = computed(() => here.value?.saving.document ?? null)
  const save = computed((): SaveState => {
    if (!here.value) return { kind: 'saved' }
    const { saving, full } = here.value
    if (full) return { kind: 'full' }
    const kind = stateOf(saving)
    return kind === 'refused' && saving.trouble?.kind === 'refused' ? saving.trouble : ({ kind } as SaveState)
  })

  /** The opening of a job whose page is on its way. */
  let ahead: { readonly job: string; readonly opening: Promise<string | null> } | null = null
  /** Opens a job before its page is there, which then takes this up. */
  function openAhead(jobId: string): void {
    ahead = { job: jobId, opening: openNow(jobId) }
  }

  /** Opens a job, with the changes made here that never arrived. Gives words when it cannot. */
  function open(jobId: string): Promise<string | null> {
    const begun = ahead?.job === jobId ? ahead.opening : null
    ahead = null
    return begun ?? openNow(jobId)
  }
  async function openNow(jobId: string): Promise<string | null> {
    id.value = jobId
    const known = jobs.get(jobId)
    if (known && !isIdle(known)) {
      void refresh(jobId)
      return null
    }
    jobs.delete(jobId)
    return bring(jobId)
  }

  /**
   * Sends the changes of a job that are kept here, whichever job is looked at. Changes of several windows that have
   * ended follow one after another.
   */
  async function resume(jobId: string): Promise<void> {
    const known = jobs.get(jobId)
    if (known && (!isIdle(known) || !(await draftOf(jobId)))) return
    jobs.delete(jobId)
    await bring(jobId)
  }

  /** The changes of a job that this window may take up: its own, or those of a window that has ended. */
  async function draftOf(jobId: string): Promise<UnsavedDraft | undefined> {
    const hasEnded = await endedWindows()
    return draftsBy(account.owner).find((draft) => draft.job === jobId && hasEnded(draft.window))
  }

  async function bring(jobId: string): Promise<string | null> {
    const draft = await draftOf(jobId)
    if (draft && !jobs.has(jobId)) takeUp(draft)
    if (draft?.version === unmade) {
      sendSoon(jobId, 0)
      return null
    }
    const answer = await ask<StoredJob>(`/api/jobs/${jobId}`)
    if (jobs.has(jobId)) {
      hear(jobId, answer)
      return null
    }
    if (answer.kind === 'refused') {
      if (isNotFound(answer)) void forgetJob(jobId)
      return answer.refused.error
    }
    const stored = answer.kind === 'ok' ? answer.data : (await keptJob(jobId))?.stored
    if (!stored)
      return 'The server cannot be reached, and this device does not keep this job. It keeps the jobs of the last 14 days and those you pin.'
    jobs.set(jobId, openJob(opened(stored), { craft: stored.craftId ?? '' }))
    if (answer.kind === 'ok') {
      void keepJob(stored)
      void recallHistory(jobId)
    }
    return null
  }

  function takeUp(draft: UnsavedDraft): void {
    takeOver(draft)
    const { job, version, epoch, base, document: drafted, unsure, typing, undo } = draft
    const saving = { ...opened({ version, epoch, document: base }), document: drafted, unsure }
    jobs.set(job, openJob(saving, { typing: { ...typing }, undo, notice: 'Your unsaved changes are back.' }))
  }

  /** Takes the server's state of a job that is open here. */
  function hear(jobId: string, answer: Answer<StoredJob>): void {
    if (answer.kind === 'ok') happened(jobId, { kind: 'news', theirs: answer.data })
    else if (isNotFound(answer)) gone(jobId)
    sendSoon(jobId, answer.kind === 'unreachable' ? retryMs : 0)
  }

  /** A job that is not on the server any more. Without changes of its own it simply closes. */
  function gone(jobId: string): void {
    happened(jobId, { kind: 'failed', trouble: { kind: 'gone' } })
    void forgetJob(jobId)
  }

  /** Somebody may have changed or deleted a job that is open here. */
  async function refresh(jobId: string): Promise<void> {
    const job = jobs.get(jobId)
    if (!job || job.saving.sent || job.saving.version === unmade) return
    const answer = await ask<StoredJob>(`/api/jobs/${jobId}`)
    if (answer.kind === 'ok') void keepJob(answer.data)
    if (answer.kind !== 'unreachable') hear(jobId, answer)
  }

  /** Makes a job without the server, which is sent as soon as it can be reached. Returns its id. */
  function make(made: JobDocument): string {
    const jobId = crypto.randomUUID()
    jobs.set(jobId, openJob(madeHere(made)))
    keep(jobId)
    sendSoon(jobId, 0)
    return jobId
  }

  /** The job on the bench was deleted elsewhere: makes a new job from this copy. Returns its id. */
  function keepAsCopy(number: string): string | null {
    const job = here.value
    if (!job) return null
    const { document: kept } = job.saving
    const copy = make({ ...kept, job: { ...kept.job, number } })
    discard()
    return copy
  }

  /** Drops the job on the bench with the changes that are not on the server. */
  function discard(): void {
    clearTimeout(here.value?.timer)
    dropDraft(id.value)
    jobs.delete(id.value)
  }

  /** Nothing of it is on its way or waits to be sent, so that it can be fetched again. */
  const isIdle = ({ saving, typing }: OpenJob): boolean =>
    stateOf(saving) === 'saved' && Object.keys(typing).length === 0

  /** Earlier changes, here or on another device, can be undone too. */
  async function recallHistory(jobId: string): Promise<void> {
    const answer = await ask<HistoryEntry[]>(`/api/jobs/${jobId}/history`)
    const job = jobs.get(jobId)
    if (answer.kind !== 'ok' || !job || job.undo.length > 0 || job.redo.length > 0) return
    // Behind an entry whose changes were too many to keep nothing can be taken back.
    const known = answer.data.filter((entry) => entry.version <= job.saving.version)
    const end = known.findIndex((entry) => entry.changes === null)
    job.undo = (end < 0 ? known : known.slice(0, end)).map((entry) => entry.changes!).reverse()
  }

  /** Passes an event to the saving of a job, and shows its messages. */
  function happened(jobId: string, event: SavingEvent): void {
    const job = jobs.get(jobId)
    if (!job) return
    job.saving = after(job.saving, event)
    const { joined } = job.saving
    if (!joined) return
    job.notice = `${savedBy(joined.by, who.value)} changed ${joined.values === 1 ? 'one value' : `${joined.values} values`} of this job. You see them now.`
    job.saving = after(job.saving, { kind: 'told' })
  }

  /** Changes the document, as one step of undo. Typing in one field stays one step. */
  function edit(change: (job: JobDocument) => JobDocument, path = ''): void {
    const job = here.value
    if (!job) return
    const before = job.saving.document
    const next = change(before)
    const changes = changesBetween(before, next)
    if (changes.length === 0) return
    const now = Date.now()
    const joins =
      path !== '' && job.lastEdit.path === path && now - job.lastEdit.at < joinEditsMs && job.undo.length > 0
    const merged = joins ? changesBetween(applyChanges(before, inverseOf(job.undo.at(-1)!)), next) : changes
    job.undo = [...(joins ? job.undo.slice(0, -1) : job.undo), merged].slice(-mostUndo)
    job.redo = []
    job.lastEdit = { path, at: now }
    changed(next)
  }

  /** The work on the job has got somewhere: its stage moves on with it, as a step that can be undone. */
  function reach(stage: Stage): void {
    const before = here.value?.saving.document.job.stage
    edit((job) => atStage(job, stage))
    if (here.value && before !== here.value.saving.document.job.stage)
      here.value.notice = `Stage is now ${stages[stage]}. Undo takes it back.`
  }

  /** Text that is no value yet: kept, so that nothing typed is lost, but not part of the job. */
  function setTyping(path: FieldPath, text: string | null): void {
    const job = here.value
    if (!job || (text === null && !(path in job.typing))) return
    const { [path]: _old, ...rest } = job.typing
    job.typing = text === null ? rest : { ...rest, [path]: text }
    keep(id.value)
  }

  /** Takes the last step back, or does it again: from one pile to the other. */
  function step(from: 'undo' | 'redo', to: 'undo' | 'redo'): void {
    const job = here.value
    if (!job) return
    // Text that could not be read was typed last: it goes first, and the last good change stays.
    if (from === 'undo' && Object.keys(job.typing).length > 0) {
      job.typing = {}
      return keep(id.value)
    }
    const last = job[from].at(-1)
    if (!last) return
    job[from] = job[from].slice(0, -1)
    job[to] = [...job[to], inverseOf(last)]
    job.lastEdit = { path: '', at: 0 }
    changed(applyChanges(job.saving.document, inverseOf(last)))
  }
  const undo = (): void => step('undo', 'redo')
  const redo = (): void => step('redo', 'undo')

  /** Stores the draft immediately and saves a moment later. */
  function changed(next: JobDocument): void {
    happened(id.value, { kind: 'edited', document: next })
    keep(id.value)
    sendSoon(id.value, saveDelayMs)
  }

  function keep(jobId: string): void {
    const job = jobs.get(jobId)
    if (!job) return
    const { version, epoch, base, document: drafted, unsure } = reloaded(job.saving)
    const { typing, undo: undoable } = job
    const changes = { version, epoch, base, document: drafted, unsure }
    job.full = !keepDraft({ job: jobId, owner: account.owner, ...changes, typing, undo: undoable })
  }

  function sendSoon(jobId: string, delay: number): void {
    const job = jobs.get(jobId)
    if (!job) return
    clearTimeout(job.timer)
    job.timer = setTimeout(() => void send(jobId), delay)
  }

  async function send(jobId: string): Promise<void> {
    const job = jobs.get(jobId)
    if (!job) return
    const order = toSend(job.saving)
    if (!order) return settle(jobId)
    const change = crypto.randomUUID()
    happened(jobId, { kind: 'sending', change })
    keep(jobId)
    const body = { ...order, change, who: signedAs(who.value) }
    const answer = await ask<SavedJob>(`/api/jobs/${jobId}`, asJson('PUT', body))
    if (answer.kind === 'ok') {
      const { version, epoch, document: saved } = answer.data
      happened(jobId, { kind: 'acknowledged', version, epoch, document: saved })
      keepSaved(jobId, answer.data)
      await send(jobId)
    } else if (answer.kind === 'unreachable') {
      happened(jobId, { kind: 'failed', trouble: { kind: 'unreachable' } })
      sendSoon(jobId, retryMs)
    } else if (answer.status === 409 && answer.refused.theirs) {
      const { theirs, arrived = null } = answer.refused
      happened(jobId, { kind: 'overtaken', theirs, arrived })
      keep(jobId)
      sendSoon(jobId, 0)
    } else if (isNotFound(answer)) {
      gone(jobId)
      keep(jobId)
    } else {
      happened(jobId, { kind: 'failed', trouble: { kind: 'refused', error: answer.refused.error } })
    }
  }

  /** Keeps the job as it was saved, for work without signal. */
  function keepSaved(jobId: string, { document: _saved, ...place }: SavedJob): void {
    const base = jobs.get(jobId)?.saving.base
    if (base) void keepJob({ ...place, document: base })
  }

  /** Nothing is left to send: the draft goes, unless there is text in it that is no value yet. */
  function settle(jobId: string): void {
    const job = jobs.get(jobId)
    if (!job || stateOf(job.saving) !== 'saved') return
    job.full = false
    if (isIdle(job)) dropDraft(jobId)
    else keep(jobId)
  }

  /** Resolves a conflict: for each path, whose value to keep. */
  function resolve(keepMine: (conflict: Conflict) => boolean): void {
    happened(id.value, { kind: 'resolved', keepMine })
    keep(id.value)
    sendSoon(id.value, 0)
  }

  /** Retries immediately, for a restored connection. */
  function saveNow(): void {
    for (const [jobId, job] of jobs) {
      clearTimeout(job.timer)
      void send(jobId)
    }
  }

  return {
    id,
    document,
    save,
    open,
    openAhead,
    resume,
    refresh,
    make,
    keepAsCopy,
    discard,
    edit,
    ...editsOf({ edit, setTyping }),
    reach,
    setTyping,
    undo,
    redo,
    resolve,
    saveNow,
    craft: computed(() => here.value?.craft ?? ''),
    version: computed(() => here.value?.saving.version ?? 0),
    epoch: computed(() => here.value?.saving.epoch),
    /** The job as the server has it; null while it is on no server. */
    stored: computed((): StoredJob | null => {
      const saving = here.value?.saving
      if (!saving || saving.version === unmade) return null
      const { version, epoch = '', base } = saving
      return {
        id: id.value,
        version,
        epoch,
        document: base,
        updatedAt: new Date().toISOString(),
        updatedBy: who.value,
      }
    }),
    /** Changes that are not on the server yet. */
    waiting: computed(() => (here.value ? waitingIn(here.value.saving) : 0)),
    /** The version of a job that is open in this window; undefined if it is not. */
    versionOf: (jobId: string): number | undefined => jobs.get(jobId)?.saving.version,
    /** Changes of the last step that can be taken back. */
    lastStep: computed(() => here.value?.undo.at(-1) ?? []),
    typing: computed(() => here.value?.typing ?? {}),
    conflict: computed(() => here.value?.saving.conflict ?? null),
    notice: computed({
      get: () => here.value?.notice ?? '',
      set: (words: string) => {
        if (here.value) here.value.notice = words
      },
    }),
    canUndo: computed(
      () => (here.value?.undo.length ?? 0) > 0 || Object.keys(here.value?.typing ?? {}).length > 0,
    ),
    canRedo: computed(() => (here.value?.redo.length ?? 0) > 0),
  }
})
