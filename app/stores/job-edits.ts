import { completeJob } from '#core/job/complete'
import {
  withField,
  withNewPart,
  withPart,
  withoutPart,
  type AnyPart,
  type FieldPath,
  type JobDocument,
  type PartPath,
} from '#core/job/document'
import type { Known, ManyKindId, PartKindId } from '#core/job/fields'
import type { RuleOverrides } from '#core/rules/rules'

/** Parts that are in the walk-round from the start. */
const madeOnDemand = (path: string): boolean =>
  path.startsWith('links/') || path.startsWith('startingBatteries/')

/** The job with a part to change, which it may not have before. */
const withPartAt = (job: JobDocument, path: string): JobDocument =>
  madeOnDemand(path) ? completeJob(job) : job

const withValue = (job: JobDocument, path: FieldPath, known: Known<unknown>): JobDocument =>
  withField(withPartAt(job, path), path, known)

/** `edit` is one step of undo; edits of one path shortly after each other are one too. */
interface Editing {
  readonly edit: (change: (job: JobDocument) => JobDocument, path?: string) => void
  readonly setTyping: (path: FieldPath, text: string | null) => void
}

/** The edits of a job by the part that they change. */
export function editsOf({ edit, setTyping }: Editing) {
  const setField = (path: FieldPath, known: Known<unknown>): void => {
    setTyping(path, null)
    edit((job) => withValue(job, path, known), path)
  }

  /** Several values as one step of undo. */
  const setFields = (values: readonly (readonly [path: FieldPath, known: Known<unknown>])[]): void =>
    edit((job) => values.reduce((next, [path, known]) => withValue(next, path, known), job))

  const setHead = (name: string, value: string): void =>
    edit((job) => ({ ...job, job: { ...job.job, [name]: value } }), `job/${name}`)
  const setPartText = (
    path: PartPath,
    name: 'name' | 'notes' | 'serial' | 'from' | 'of',
    value: string,
  ): void =>
    edit(
      (job) =>
        withPart(job, path, ({ [name]: _old, ...rest }) =>
          value === '' ? rest : { ...rest, [name]: value },
        ),
      `${path}/${name}`,
    )

  function addPart(kind: ManyKindId, part: Record<string, unknown> = {}): PartPath {
    let path = ''
    edit((job) => {
      const added = withNewPart(job, kind, part)
      path = added.path
      return kind === 'alternators' ? completeJob(added.job) : added.job
    })
    return path
  }

  /** Gives a part values and a reference from the shelf; values that the shelf lacks stay. */
  const fillPart = (path: PartPath, values: AnyPart): void =>
    edit((job) => withPart(withPartAt(job, path), path, (part) => ({ ...part, ...values })))

  const setNote = (station: PartKindId, text: string): void =>
    edit((job) => {
      const { [station]: _old, ...rest } = job.notes
      return { ...job, notes: text === '' ? rest : { ...rest, [station]: text } }
    }, `notes/${station}`)

  /** Overrides shop rules on this job; the others follow the shop again. */
  const setRules = (overrides: RuleOverrides): void => edit((job) => ({ ...job, rules: overrides }))

  const removePart = (path: PartPath): void => edit((job) => withoutPart(job, path))

  return { setField, setFields, setHead, setPartText, addPart, fillPart, setNote, setRules, removePart }
}
