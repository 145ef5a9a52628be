import { present } from '#core/collections/held'
import { partName, type FieldPath, type JobDocument, type PartPath } from '#core/job/document'
import { asFound, asSpecified } from '#core/job/as-specified'
import { partKinds, type PartKindId } from '#core/job/fields'
import type { Gone } from '../network'

/** Fields that make a part a different one in the same place. */
const identity = ['shelf', 'kind', 'name']
/**
 * The separate parts of a part that are fitted while the part itself stays: of a surveyed cable the conductor, a
 * fuse, a plug; of a unit a thin line to it; of a monitor its shunt.
 */
const thingsOf: Readonly<Record<string, readonly string[]>> = {
  conductors: ['areaMm2', 'fuseA', 'fuseKind', 'farFuseA', 'farFuseKind', 'connectorA'],
  links: ['signal'],
  alternators: ['chargeStopWire', 'regulator'],
  use: ['monitor'],
}

/** The changes of an answer: new parts, replacements, and changed fields of existing parts. */
export function fittedBy({ specified }: JobDocument): (path: PartPath | FieldPath) => boolean {
  const paths = new Set<string>()
  for (const { path, before } of specified?.changes ?? []) {
    const [kind, ...rest] = path.split('/') as [PartKindId, ...string[]]
    if (!Object.hasOwn(partKinds, kind)) continue
    const part = partKinds[kind].many ? `${kind}/${present(rest.shift())}` : kind
    const [field] = rest
    if (field === undefined) {
      if (before === undefined) paths.add(part)
    } else if (identity.includes(field)) paths.add(part)
    else if (thingsOf[kind]?.includes(field)) paths.add(path)
  }
  return (path) => paths.has(path)
}

/** The kind of a removed part, for the drawing. */
const wasOf = { chargers: 'source', solar: 'source', sources: 'source', inverters: 'inverter' } as const

const linkWas = (kind: unknown): Gone['was'] => (kind === 'dcdc' || kind === 'diode' ? kind : 'link')

/** Parts of the survey that the specified job removes: the old bank and replaced parts. */
export function goneOf(job: JobDocument): Gone[] {
  const found = asFound(job)
  const done = asSpecified(job)
  const isFitted = fittedBy(job)
  const mixed = (done.use.mixed?.value ?? 'replaced') as string
  const gone: Gone[] = []
  const bank = Object.keys(found.houseBank).length > 0
  if (bank && (mixed === 'replaced' || mixed === 'series'))
    gone.push({ id: 'house-bank', name: 'Old house bank', of: 'houseBank', was: 'battery', instead: 'bank' })
  for (const kind of ['links', 'chargers', 'solar', 'sources', 'inverters'] as const)
    for (const [id, part] of Object.entries(found[kind])) {
      const path = `${kind}/${id}`
      const stays = Object.hasOwn(done[kind], id)
      const isLink = kind === 'links'
      const oldKind = (part as { kind?: { value?: unknown } }).kind?.value
      const was = kind === 'links' ? linkWas(oldKind) : wasOf[kind]
      if (stays && (!isFitted(path) || (isLink && (oldKind === 'direct' || oldKind === 'none')))) continue
      gone.push({ id: `old-${id}`, name: partName(found, path), of: path, was, instead: stays ? id : null })
    }
  return gone
}
