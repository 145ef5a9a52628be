import { firstOf } from '#core/collections/held'
import { dequal } from 'dequal/lite'
import { partKinds, type PartKindId } from './fields'
import type { Change } from './change'
import type { JobDocument } from './document'
import { quotationDepth } from './quotation'

type Group = Readonly<Record<string, unknown>>
const isGroup = (value: unknown): value is Group =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** How many names deep the properties of a section lie before they are compared whole. */
function depthOf(section: string): number {
  if (section === 'proving') return 2
  if (section === 'quotation') return quotationDepth
  if (section === 'paperPhotos') return 2
  if (section === 'job' || section === 'rules' || section === 'notes') return 1
  if (!Object.hasOwn(partKinds, section)) return 0
  return partKinds[section as PartKindId].many ? 2 : 1
}

/** Differences between two states of a job, property by property. */
export function changesBetween(before: JobDocument, after: JobDocument): Change[] {
  const compare = (a: unknown, b: unknown, path: string, depth: number): Change[] => {
    if (dequal(a, b)) return []
    if (depth > 0 && isGroup(a) && isGroup(b)) {
      return [...new Set([...Object.keys(a), ...Object.keys(b)])].flatMap((name) =>
        compare(a[name], b[name], `${path}/${name}`, depth - 1),
      )
    }
    return [{ path, ...(a === undefined ? {} : { before: a }), ...(b === undefined ? {} : { after: b }) }]
  }
  const sections = [...new Set([...Object.keys(before), ...Object.keys(after)])]
  return sections.flatMap((section) =>
    compare(
      (before as unknown as Group)[section],
      (after as unknown as Group)[section],
      section,
      depthOf(section),
    ),
  )
}

/** The job with the changes made. A change inside a part that is not there any more is left out. */
export function applyChanges(job: JobDocument, changes: readonly Change[]): JobDocument {
  const put = (group: Group, path: readonly string[], value: unknown): Group => {
    const [name, ...rest] = [firstOf(path), ...path.slice(1)]
    if (rest.length === 0) {
      const { [name]: _old, ...others } = group
      return value === undefined ? others : { ...group, [name]: value }
    }
    const inner = group[name]
    return isGroup(inner) ? { ...group, [name]: put(inner, rest, value) } : group
  }
  return changes.reduce<Group>(
    (next, { path, after }) => put(next, path.split('/'), after),
    job as unknown as Group,
  ) as unknown as JobDocument
}

/** The changes that take the others back, last first. */
export const inverseOf = (changes: readonly Change[]): Change[] =>
  changes.toReversed().map(({ path, before, after }) => ({
    path,
    ...(after === undefined ? {} : { before: after }),
    ...(before === undefined ? {} : { after: before }),
  }))

/** A property that two people changed, each in their own way. */
export interface Conflict {
  readonly path: string
  readonly mine: Change
  readonly theirs: Change
}

const touches = (a: string, b: string): boolean => a === b || a.startsWith(`${b}/`) || b.startsWith(`${a}/`)

/** Where two sets of changes from one common state meet and differ. */
export function conflictsBetween(mine: readonly Change[], theirs: readonly Change[]): Conflict[] {
  return mine.flatMap((m) =>
    theirs
      .filter((t) => touches(m.path, t.path) && !(m.path === t.path && dequal(m.after, t.after)))
      .map((t) => ({ path: m.path.length < t.path.length ? m.path : t.path, mine: m, theirs: t })),
  )
}
