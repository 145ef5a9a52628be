import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { assess } from '../../core/assessment/assess'
import { drawLanes } from '../../core/assessment/instruments'
import { applyRemedy, sameRemedy, type RemedyRef } from '../../core/assessment/remedies'
import { completeLinks } from '../../core/assessment/system'
import { applyChanges, changesBetween, conflictsBetween, inverseOf, type Change, type Conflict } from '../../core/job/changes'
import { withField, withNewPart, withPart, withoutPart, type AnyPart, type FieldPath, type JobDocument, type PartPath } from '../../core/job/document'
import type { Known, ManyKindId, PartKindId } from '../../core/job/fields'
import type { RuleOverrides } from '../../core/rules/rules'
import { useDeviceName } from '../composables/device'
import { useJudged } from '../composables/judged'
import { asJson, ask, type HistoryEntry, type StoredJob } from '../utils/api'
import { useShop } from './shop'
import { dropDraft, keepDraft, readDraft } from '../utils/drafts'

export type SaveState =
  | { readonly kind: 'saved' | 'saving' | 'unsaved' | 'unreachable' | 'conflict' | 'full' }
  | { readonly kind: 'refused'; readonly error: string }

/** Two people changed the same things: what stands on the server, and where it meets what was done here. */
export interface OpenConflict {
  readonly theirs: StoredJob
  readonly mine: readonly Change[]
  readonly conflicts: readonly Conflict[]
}

const saveDelayMs = 500
const retryMs = 2000
const joinEditsMs = 1500
const mostUndo = 200

/** The job on the bench: its document, its verdicts, and the way to the server and back. */
export const useBench = defineStore('bench', () => {
  const who = useDeviceName()
  const store = useShop()
  const rules = computed(() => store.shop.rules)
  const id = ref('')
  const version = ref(0)
  const base = shallowRef<JobDocument | null>(null)
  const document = shallowRef<JobDocument | null>(null)
  const typing = ref<Record<FieldPath, string>>({})
  const save = shallowRef<SaveState>({ kind: 'saved' })
  const conflict = shallowRef<OpenConflict | null>(null)
  const notice = ref('')
  const undoStack = shallowRef<readonly (readonly Change[])[]>([])
  const redoStack = shallowRef<readonly (readonly Change[])[]>([])
  const selected = ref<string | null>(null)
  const trial = shallowRef<RemedyRef | null>(null)
  let lastEdit = { path: '', at: 0 }
  let timer: ReturnType<typeof setTimeout> | undefined
  let sending = false

  /** What takes a run comes a moment later, out of a worker; until then what it was before stands. */
  const ahead = useJudged('ahead', () => document.value, () => rules.value)
  const assessment = computed(() => document.value && assess(document.value, rules.value, ahead.result.value ?? []))
  const drawings = computed(() => (document.value && assessment.value ? drawLanes(document.value, rules.value, assessment.value) : []))
  const selectedCheck = computed(() => {
    const checks = assessment.value?.checks ?? []
    return checks.find((c) => c.key === selected.value) ?? checks.find((c) => c.key === assessment.value?.decidedBy) ?? checks[0] ?? null
  })
  const tried = computed(() => (trial.value && document.value ? applyRemedy(completeLinks(document.value), trial.value) : null))
  const triedAhead = useJudged('ahead', () => tried.value, () => rules.value)
  const trialAssessment = computed(() => tried.value && assess(tried.value, rules.value, triedAhead.result.value ?? ahead.result.value ?? []))

  /** Opens a job; what was typed here and never arrived is taken up again. Gives words when it cannot. */
  async function open(jobId: string): Promise<string | null> {
    clearTimeout(timer)
    Object.assign(lastEdit, { path: '', at: 0 })
    id.value = jobId
    document.value = base.value = conflict.value = trial.value = selected.value = null
    ahead.forget()
    typing.value = {}
    undoStack.value = redoStack.value = []
    notice.value = ''
    save.value = { kind: 'saved' }
    const draft = readDraft(jobId)
    const answer = await ask<StoredJob>(`/api/jobs/${jobId}`)
    if (id.value !== jobId) return null
    if (answer.kind === 'refused') return answer.refused.error
    if (answer.kind === 'unreachable' && !draft) return 'The server cannot be reached, and this job was not changed on this device before.'
    if (draft) {
      version.value = draft.version
      base.value = draft.base
      document.value = draft.document
      typing.value = { ...draft.typing }
      undoStack.value = draft.undo
      notice.value = 'Taken up where you left it: what had not been saved is here.'
      if (answer.kind === 'ok' && answer.data.version !== draft.version) reconcile(answer.data)
      else changed(answer.kind === 'unreachable' ? retryMs : 0)
    } else if (answer.kind === 'ok') {
      version.value = answer.data.version
      base.value = document.value = answer.data.document
      void recallHistory(jobId)
    }
    return null
  }

  /** What was saved before, here or on another device, can be undone too. */
  async function recallHistory(jobId: string): Promise<void> {
    const answer = await ask<HistoryEntry[]>(`/api/jobs/${jobId}/history`)
    if (answer.kind !== 'ok' || id.value !== jobId || undoStack.value.length > 0 || redoStack.value.length > 0) return
    undoStack.value = answer.data.filter((entry) => entry.version <= version.value).map((entry) => entry.changes).reverse()
  }

  /** Changes the document, once and undoably. Typing on in one field is one step of undo. */
  function edit(change: (job: JobDocument) => JobDocument, path = ''): void {
    const before = document.value
    if (!before) return
    const after = change(before)
    const changes = changesBetween(before, after)
    if (changes.length === 0) return
    const now = Date.now()
    const joins = path !== '' && lastEdit.path === path && now - lastEdit.at < joinEditsMs && undoStack.value.length > 0
    const previous = joins ? undoStack.value.at(-1)! : []
    const merged = joins ? changesBetween(applyChanges(before, inverseOf(previous)), after) : changes
    undoStack.value = [...(joins ? undoStack.value.slice(0, -1) : undoStack.value), merged].slice(-mostUndo)
    redoStack.value = []
    lastEdit = { path, at: now }
    document.value = after
    changed()
  }

  const setField = (path: FieldPath, known: Known<unknown>): void => {
    setTyping(path, null)
    edit((job) => withField(path.startsWith('links/') ? completeLinks(job) : job, path, known), path)
  }

  /** Text that is no value yet: kept, so that nothing typed is lost, but not part of the job. */
  function setTyping(path: FieldPath, text: string | null): void {
    if (text === null && !(path in typing.value)) return
    const { [path]: _old, ...rest } = typing.value
    typing.value = text === null ? rest : { ...rest, [path]: text }
    keep()
  }

  const setHead = (name: string, value: string): void => edit((job) => ({ ...job, job: { ...job.job, [name]: value } }), `job/${name}`)
  const setPartText = (path: PartPath, name: 'name' | 'notes' | 'from' | 'of', value: string): void =>
    edit((job) => withPart(job, path, ({ [name]: _old, ...rest }) => (value === '' ? rest : { ...rest, [name]: value })), `${path}/${name}`)

  function addPart(kind: ManyKindId, part: Record<string, unknown> = {}): PartPath {
    let path = ''
    edit((job) => {
      const added = withNewPart(job, kind, part)
      path = added.path
      return kind === 'alternators' ? completeLinks(added.job) : added.job
    })
    return path
  }

  /** Gives a part values and a reference from the shelf; what the shelf does not say stays. */
  const fillPart = (path: PartPath, values: AnyPart): void => edit((job) => withPart(path.startsWith('links/') ? completeLinks(job) : job, path, (part) => ({ ...part, ...values })))

  const setNote = (station: PartKindId, text: string): void =>
    edit((job) => { const { [station]: _old, ...rest } = job.notes; return { ...job, notes: text === '' ? rest : { ...rest, [station]: text } } }, `notes/${station}`)

  /** Overrides shop rules on this job; what is left out follows the shop again. */
  const setRules = (overrides: RuleOverrides): void => edit((job) => ({ ...job, rules: overrides }))

  const removePart = (path: PartPath): void => edit((job) => withoutPart(job, path))

  function step(from: typeof undoStack, to: typeof undoStack): void {
    const last = from.value.at(-1)
    if (!last || !document.value) return
    from.value = from.value.slice(0, -1)
    to.value = [...to.value, inverseOf(last)]
    document.value = applyChanges(document.value, inverseOf(last))
    lastEdit = { path: '', at: 0 }
    typing.value = {}
    changed()
  }
  const undo = (): void => step(undoStack, redoStack)
  const redo = (): void => step(redoStack, undoStack)

  function tryRemedy(remedy: RemedyRef | null): void {
    triedAhead.forget()
    trial.value = remedy && trial.value && sameRemedy(remedy, trial.value) ? null : remedy
  }

  /** Keeps the draft at once, and saves a moment later. */
  function changed(delay = saveDelayMs): void {
    trial.value = null
    if (save.value.kind !== 'conflict') save.value = { kind: 'unsaved' }
    keep()
    clearTimeout(timer)
    timer = setTimeout(send, delay)
  }

  function keep(): void {
    if (!base.value || !document.value) return
    const draft = { version: version.value, base: base.value, document: document.value, typing: typing.value, undo: undoStack.value }
    if (!keepDraft(id.value, draft)) save.value = { kind: 'full' }
  }

  async function send(): Promise<void> {
    if (sending || conflict.value || !document.value || !base.value) return
    const [jobId, sent] = [id.value, document.value]
    if (changesBetween(base.value, sent).length === 0) return settled()
    sending = true
    save.value = { kind: 'saving' }
    const answer = await ask<Omit<StoredJob, 'document'>>(`/api/jobs/${jobId}`, asJson('PUT', { version: version.value, who: who.value || 'Unnamed device', document: sent }))
    sending = false
    if (id.value !== jobId) return
    if (answer.kind === 'ok') {
      version.value = answer.data.version
      base.value = sent
      if (document.value === sent) settled()
      else changed(0)
    } else if (answer.kind === 'unreachable') {
      save.value = { kind: 'unreachable' }
      timer = setTimeout(send, retryMs)
    } else if (answer.status === 409 && answer.refused.theirs) {
      reconcile(answer.refused.theirs)
    } else {
      save.value = { kind: 'refused', error: answer.refused.error }
    }
  }

  function settled(): void {
    save.value = { kind: 'saved' }
    if (Object.keys(typing.value).length === 0) dropDraft(id.value)
    else keep()
  }

  /** Somebody else saved first. What does not meet is joined, and said; what does is laid before the person. */
  function reconcile(theirs: StoredJob): void {
    const mine = changesBetween(base.value!, document.value!)
    const others = changesBetween(base.value!, theirs.document)
    const conflicts = conflictsBetween(mine, others)
    if (conflicts.length > 0) {
      conflict.value = { theirs, mine, conflicts }
      save.value = { kind: 'conflict' }
      keep()
      return
    }
    notice.value = `${theirs.updatedBy} changed ${others.length === 1 ? 'one value' : `${others.length} values`} of this job meanwhile; they are in here now.`
    take(theirs, applyChanges(theirs.document, mine))
  }

  /** Ends a conflict: for each path, whose value stands. */
  function resolve(keepMine: (conflict: Conflict) => boolean): void {
    const open = conflict.value
    if (!open) return
    const dropped = new Set(open.conflicts.filter((c) => !keepMine(c)).map((c) => c.mine.path))
    conflict.value = null
    take(open.theirs, applyChanges(open.theirs.document, open.mine.filter((change) => !dropped.has(change.path))))
  }

  function take(theirs: StoredJob, merged: JobDocument): void {
    version.value = theirs.version
    base.value = theirs.document
    document.value = merged
    save.value = { kind: 'unsaved' }
    changed(0)
  }

  /** Tries at once, for when the connection is back. */
  const saveNow = (): void => {
    clearTimeout(timer)
    void send()
  }

  return {
    id, version, document, assessment, drawings, typing, save, conflict, notice, selected, selectedCheck, trial, trialAssessment,
    canUndo: computed(() => undoStack.value.length > 0), canRedo: computed(() => redoStack.value.length > 0),
    rules, looksAhead: ahead.pending, aheadProblem: ahead.problem,
    open, edit, setField, setTyping, setHead, setPartText, setNote, setRules, fillPart, addPart, removePart, undo, redo, tryRemedy, resolve, saveNow,
  }
})
