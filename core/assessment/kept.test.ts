import fc from 'fast-check'
import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import {
  listParts,
  withField,
  withNewPart,
  withoutPart,
  withPart,
  type JobDocument,
} from '#core/job/document'
import { partKinds, type Field, type ManyKindId, type PartKind } from '#core/job/fields'
import { ruleCatalogue, ruleIds } from '#core/rules/rules'
import { evenly, goodJob, long } from '#core/testing'
import { assess, findingsOf, type Assessment } from './assess'
import { KeptAssessment } from './kept'
import { FindingMemo } from './memo'
import { factsOf, type ShopSettings } from '#core/system/system'

const folder = new URL('../../demo/jobs/', import.meta.url)
const demos = readdirSync(folder).map(
  (name) => JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as JobDocument,
)
const starts = [...demos, goodJob()]

/** A number that picks one of several; their count does not matter. */
const share = evenly(0, 1)
const pick = <T>(list: readonly T[], at: number): T =>
  list[Math.min(list.length - 1, Math.floor(at * list.length))]!

const anyEdit = fc.record({
  kind: fc.constantFrom(
    ...Array<'value'>(12).fill('value'),
    'clear',
    'how',
    'how',
    'add',
    'remove',
    'name',
    'rule',
    'rule',
    'craft',
  ),
  where: share,
  what: share,
  value: share,
})
type Edit = typeof anyEdit extends fc.Arbitrary<infer T> ? T : never

function valueFor(field: Field, at: number): unknown {
  if (field.type === 'choice') return pick(Object.keys(field.options), at)
  if (field.type === 'rows')
    return [
      Object.fromEntries(
        field.columns.map(({ name, limits: [least, most] }) => [
          name,
          Math.min(most, least + at * Math.min(100, most - least)),
        ]),
      ),
    ]
  const plausible = typeof field.plausible === 'function' ? field.limits : field.plausible
  const value = Number((plausible[0] + (plausible[1] - plausible[0]) * at).toPrecision(3))
  return Math.min(field.limits[1], Math.max(field.limits[0], field.unit === '' ? Math.round(value) : value))
}

/** The job after an edit such as a person makes. */
function edited(job: JobDocument, { kind, where, what, value }: Edit): JobDocument {
  const ref = pick(listParts(job), where)
  const [name, field] = pick(Object.entries((partKinds[ref.kind] as PartKind).fields), what)
  const path = `${ref.path}/${name}`
  switch (kind) {
    case 'value':
      return withField(job, path, { value: valueFor(field, value), how: 'measured' })
    case 'clear':
      return withField(job, path, value < 0.5 ? { value: null } : undefined)
    case 'how':
      return withPart(job, ref.path, (part) =>
        part[name] ? { ...part, [name]: { ...(part[name] as object), how: 'assumed' } } : part,
      )
    case 'add':
      return withNewPart(job, pick(['loads', 'devices', 'conductors'] as ManyKindId[], where)).job
    case 'remove':
      return ref.id === null ? job : withoutPart(job, ref.path)
    case 'name':
      return withPart(job, ref.path, (part) => ({ ...part, name: `Thing ${Math.round(value * 9)}` }))
    case 'rule': {
      const id = pick(ruleIds, where)
      const rule = ruleCatalogue[id]
      const set =
        rule.kind === 'number'
          ? rule.limits[0] + (rule.limits[1] - rule.limits[0]) * value
          : pick(Object.keys(rule.options), value)
      return { ...job, rules: { ...job.rules, [id]: set } }
    }
    case 'craft':
      return {
        ...job,
        job: { ...job.job, craft: pick(['vessel', 'vehicle', 'trailer', undefined] as const, value) },
      }
  }
}

/** Everything of an assessment as plain data, bands too. */
const whole = (assessment: Assessment): Assessment => JSON.parse(JSON.stringify(assessment)) as Assessment
const quickOf = ({ checks, ...rest }: Assessment): Assessment =>
  whole({ ...rest, checks: checks.filter(({ id }) => !ahead.has(id)) })
const ahead = new Set([
  'battery.short-circuit',
  'charger.time',
  'alternator.heat',
  'cold.heater',
  'mixed.gassing',
])
const shops: readonly ShopSettings[] = [
  {},
  { rules: { coldSchool: 'maker' } },
  { units: { system: 'imperial', currency: '$' } },
]

/** Random edits that are compared: a few of those in `npm run test:long`. */
const randomEdits = Number(process.env.RANDOM_EDITS ?? 300)
const editsOfJob = 25

describe('a kept assessment', () => {
  it('equals a fresh assessment after each random edit', long, () => {
    let edits = 0
    fc.assert(
      fc.property(
        fc.constantFrom(...starts),
        fc.constantFrom(...shops),
        fc.array(anyEdit, { minLength: editsOfJob, maxLength: editsOfJob }),
        (start, shop, list) => {
          const kept = new FindingMemo()
          let job = start
          for (const edit of list) {
            job = edited(job, edit)
            edits++
            const fresh = findingsOf(factsOf(job, shop))
            const found = kept.of(job, shop)
            // One alone first: what it says must not hang on whether the others were asked.
            for (const finding of fresh) expect(found.one(finding.id, finding.on)).toEqual(finding)
            expect(found.all()).toEqual(fresh)
          }
        },
      ),
      { numRuns: Math.ceil(randomEdits / editsOfJob), endOnFailure: true },
    )
    expect(edits).toBe(randomEdits)
  })

  it('equals it to the last word, bands and evidence, runs and all', long, () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...starts),
        fc.constantFrom(...shops),
        fc.array(anyEdit, { minLength: editsOfJob, maxLength: editsOfJob }),
        fc.array(share, { minLength: 2, maxLength: 2 }),
        (start, shop, list, looks) => {
          const kept = new KeptAssessment()
          let job = start
          list.forEach((edit, i) => {
            job = edited(job, edit)
            const { assessment } = kept.take(job, shop)
            expect(quickOf(assessment).checks).toEqual(whole(assess(job, shop, { quick: true })).checks)
            if (looks.some((at) => Math.floor(at * list.length) === i)) {
              const looking = kept.lookAhead()
              let next = looking.next()
              while (!next.done) next = looking.next()
              expect(whole(next.value)).toEqual(whole(assess(job, shop)))
            }
          })
        },
      ),
      { numRuns: 8, endOnFailure: true },
    )
  })

  it('shows the run of before until the new one is carried out', () => {
    const kept = new KeptAssessment()
    const job = goodJob()
    expect(kept.take(job).complete).toBe(false)
    for (const step of kept.lookAhead()) void step
    const again = kept.take(job)
    expect(again.complete).toBe(true)
    const changed = kept.take(withField(job, 'chargers/charger-1/ratedA', { value: 6, how: 'measured' }))
    expect(changed.complete).toBe(false)
    expect(changed.assessment.checks.map(({ key }) => key)).toEqual(
      again.assessment.checks.map(({ key }) => key),
    )
  })
})
