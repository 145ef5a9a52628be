import fc from 'fast-check'
import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { completeJob } from '#core/job/complete'
import { listParts, partAt, withField, withPart, type JobDocument } from '#core/job/document'
import { partKinds, type PartKind } from '#core/job/fields'
import { applyRemedy, canTry } from '#core/remedies/catalogue'
import { inputsOfJob } from '#core/simulation/inputs'
import { plantOf } from '#core/simulation/plant-of-job'
import { runNow } from '#core/simulation/runs'
import { factsOf } from '#core/system/system'
import { isWorse, verdicts } from '#core/system/verdict'
import { assessed, anyJobFrom, evenly, goodJob, pick, share } from '#core/testing'
import type { Judgement } from '#core/verdict/judgement'
import { findingsOf, type CheckResult } from './assess'
import { isAccepted } from './finding'

// What holds of every assessment, over jobs made at random out of the demo jobs. The smallest job that fails is
// printed as the edits that make it.

const folder = new URL('../../demo/jobs/', import.meta.url)
const starts: readonly JobDocument[] = [
  ...readdirSync(folder).map(
    (name) => JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as JobDocument,
  ),
  goodJob(),
]
/** Random jobs of each property: a few of those in `npm run test:long`. */
const randomJobs = Number(process.env.RANDOM_JOBS ?? 150)
/** Random jobs whose remedies are tried one by one. */
const remedyJobs = Number(process.env.REMEDY_JOBS ?? 20)
/** A battery of 48 V that is charged at 14 V by its own data: no regulator is right for it. */
const contradicted = ['source.nominal']
/** What a setting of a unit hangs on: a field of it, and the values with which it can be set. */
const settable: Readonly<Record<string, readonly [field: string, ways: readonly string[]]>> = {
  'charger.limit-current': ['currentLimit', ['adjustable']],
  'charger.set-absorption': ['profile', ['adjustable', 'selectable']],
  'charger.set-float': ['profile', ['adjustable', 'selectable']],
  'charger.float-off': ['profile', ['adjustable', 'selectable']],
  'charger.set-all': ['profile', ['adjustable']],
  'charger.use-lithium-profile': ['profile', ['selectable']],
  'charger.equalise-off': ['equaliseStage', ['switchable']],
}
/** Random jobs whose runs are carried out. */
const runJobs = Number(process.env.RUN_JOBS ?? 15)
/** The same jobs every time, so that one that fails is found again. */
const seed = 20261126
const anyJob = anyJobFrom(starts)

/** What is looked at of an assessment. */
interface Judged extends Pick<Judgement, 'verdict' | 'headline' | 'changes'> {
  readonly checks: readonly Pick<
    CheckResult,
    'key' | 'id' | 'on' | 'verdict' | 'summary' | 'compared' | 'deciding' | 'remedies'
  >[]
}
function quick(job: JobDocument): Judged {
  const { verdict, headline, changes, checks } = assessed(job, {}, { quick: true })
  return {
    verdict,
    headline,
    changes,
    checks: checks.map(({ key, id, on, verdict, summary, compared, deciding, remedies }) => ({
      key,
      id,
      on,
      verdict,
      summary,
      compared,
      deciding,
      remedies,
    })),
  }
}
/** The same seed makes the same jobs for every property: each is checked once. */
const judged = new Map<string, Judged>()
function judgedOnce(job: JobDocument): Judged {
  const key = JSON.stringify(job)
  const known = judged.get(key) ?? quick(job)
  judged.set(key, known)
  return known
}
const changedBy = (job: JobDocument, { changes }: Judged): JobDocument =>
  changes.filter(canTry).reduce(applyRemedy, job)
/** Every verdict of a job, without its words. */
const verdictsOf = (job: JobDocument): string[] =>
  findingsOf(factsOf(job)).map(({ id, on, verdict }) => `${id}@${on} ${verdict}`)

describe('over random jobs', () => {
  it('the headline is true: a job that suits after this many changes suits when they are made', () => {
    let promised = 0
    fc.assert(
      fc.property(anyJob, (job) => {
        const before = judgedOnce(job)
        if (!/^Suits after \d+ changes?$/.test(before.headline)) return
        promised++
        const left = quick(changedBy(job, before)).checks.filter(
          (check) => check.verdict !== 'suits' && !isAccepted(check),
        )
        expect(left.map(({ key, summary }) => ({ key, summary }))).toEqual([])
      }),
      { numRuns: randomJobs, seed },
    )
    expect(promised).toBeGreaterThan(randomJobs / 20)
  })

  it('all listed changes together end in Suits or Measure first', () => {
    let tried = 0
    fc.assert(
      fc.property(anyJob, (job) => {
        const before = judgedOnce(job)
        if (before.verdict !== 'suits-once-changed') return
        tried++
        const left = quick(changedBy(job, before)).checks.filter(
          (check) => check.verdict !== 'suits' && check.verdict !== 'measure-first' && !isAccepted(check),
        )
        expect(left.map(({ key, summary }) => ({ key, summary }))).toEqual([])
      }),
      { numRuns: randomJobs, seed },
    )
    expect(tried).toBeGreaterThan(randomJobs / 20)
  })

  it('bands are true: a deciding unknown set to a value gives the verdict that its band promised', () => {
    let tried = 0
    fc.assert(
      fc.property(anyJob, share, share, (job, which, at) => {
        const open = judgedOnce(job).checks.filter(({ deciding }) => deciding.length === 1)
        if (open.length === 0) return
        const check = pick(open, which)
        const { path, bands } = check.deciding[0]!
        const band = pick(bands, at)
        const value =
          typeof band.from === 'number' && typeof band.to === 'number' ? (band.from + band.to) / 2 : band.from
        const known = quick(withField(job, path, { value, how: 'measured' }))
        const now = known.checks.find(({ key }) => key === check.key)
        // Something else may still be open for it; it must not be settled otherwise.
        if (now?.verdict === 'measure-first') return
        tried++
        expect({ key: check.key, value, verdict: now?.verdict ?? 'suits' }).toEqual({
          key: check.key,
          value,
          verdict: band.verdict,
        })
      }),
      { numRuns: randomJobs, seed },
    )
    expect(tried).toBeGreaterThan(randomJobs / 8)
  })

  it('a remedy settles its own check alone, or improves it, or leaves something to measure', () => {
    let tried = 0
    fc.assert(
      fc.property(anyJob, (job) => {
        const wrong = judgedOnce(job).checks.filter(
          ({ id, verdict }) => verdict !== 'suits' && !contradicted.includes(id),
        )
        for (const { key, verdict, remedies } of wrong)
          for (const remedy of remedies.filter(canTry)) {
            tried++
            const now = quick(applyRemedy(job, remedy)).checks.find((check) => check.key === key)
            const isOpen = now?.verdict === 'measure-first' && verdict !== 'measure-first'
            const helps = !now || isAccepted(now) || isWorse(verdict, now.verdict) || isOpen
            expect({ key, remedy, helps, now: helps ? '' : now.summary }).toMatchObject({ helps: true })
          }
      }),
      { numRuns: remedyJobs, seed },
    )
    expect(tried).toBeGreaterThan(remedyJobs)
  })

  it('no setting is asked for that cannot be set', () => {
    const told = new Set<string>()
    fc.assert(
      fc.property(anyJob, (job) => {
        const remedies = judgedOnce(job).checks.flatMap((check) => check.remedies)
        for (const { id, on } of remedies.filter((remedy) => remedy.id in settable)) {
          told.add(id)
          const [field, ways] = settable[id]!
          const unit = partAt(job, on)!.part as Readonly<Record<string, { value?: unknown } | undefined>>
          expect({ id, on, way: unit[field]?.value }).toEqual({ id, on, way: expect.toBeOneOf([...ways]) })
        }
      }),
      { numRuns: randomJobs, seed },
    )
    expect(told.size).toBeGreaterThan(randomJobs < 2000 ? 1 : 3)
  })

  it('facts have one source: no two findings contradict each other about an alternator’s output, a fuse block or a limit', () => {
    fc.assert(
      fc.property(anyJob, (job) => {
        const { checks } = judgedOnce(job)
        const of = (id: string, on: string): Judged['checks'][number] | undefined =>
          checks.find((check) => check.id === id && check.on === on)
        for (const { on, verdict } of checks.filter(({ id }) => id === 'charger.role')) {
          const goes = ['charger.absorption', 'charger.float', 'charger.equalise', 'charger.current'].some(
            (id) => of(id, on)?.verdict === 'does-not-suit',
          )
          const role = of('charger.role', on)!
          if (goes && role.compared[0].value !== 'nothing') expect(verdict).not.toBe('suits')
        }
        for (const { on, verdict } of checks.filter(({ id }) => id === 'link.battery-switch'))
          if (verdict === 'does-not-suit')
            expect(of('alternator.load-dump', on)!.compared[0].value).not.toBe('lead battery')
        // No check suits next to a figure over the limit that it compares with.
        for (const { verdict, compared, key } of checks) {
          const [a, b] = compared
          const most = / at most$|^at most$|carries$|^rated$|^supply gives$|^plug$/.test(b.label)
          if (verdict === 'suits' && most && typeof a.value === 'number' && typeof b.value === 'number')
            expect({ key, fits: a.value <= b.value + 0.051 }).toEqual({ key, fits: true })
        }
      }),
      { numRuns: randomJobs, seed },
    )
  })

  it('order does not matter: other names, and parts the other way round, change no verdict; nor does checking again', () => {
    fc.assert(
      fc.property(anyJob, (job) => {
        const before = judgedOnce(job).checks.map(({ id, on, verdict }) => `${id}@${on} ${verdict}`)
        const renamed = listParts(job)
          .filter(({ id }) => id !== null)
          .reduce(
            (next, { path }, i) => withPart(next, path, (part) => ({ ...part, name: `Thing ${i}` })),
            job,
          )
        const turned = Object.fromEntries(
          Object.entries(job).map(([kind, value]) => [
            kind,
            kind in partKinds && (partKinds[kind as keyof typeof partKinds] as PartKind).many
              ? Object.fromEntries(Object.entries(value as object).reverse())
              : value,
          ]),
        ) as unknown as JobDocument
        expect(verdictsOf(renamed)).toEqual(before)
        expect(verdictsOf(turned).toSorted()).toEqual(before.toSorted())
        expect(verdictsOf(job)).toEqual(before)
      }),
      { numRuns: randomJobs, seed },
    )
  })

  it('more is not better without reason: a larger fuse, a smaller cable, a higher voltage, a colder place improve no check of safety', () => {
    const better = (before: Judged, after: JobDocument, ids: readonly string[]): string[] => {
      const findings = findingsOf(factsOf(after))
      return before.checks
        .filter(({ id }) => ids.includes(id))
        .filter(({ id, on, verdict }) => {
          const now = findings.find((finding) => finding.id === id && finding.on === on)
          return now !== undefined && isWorse(verdict, now.verdict)
        })
        .map(({ key }) => key)
    }
    fc.assert(
      fc.property(anyJob, evenly(1.05, 3), (job, factor) => {
        const before = judgedOnce(job)
        const scaled = (kind: 'conductors' | 'chargers', field: string, by: number): JobDocument =>
          listParts(job)
            .filter((ref) => ref.kind === kind)
            .reduce((next, { path, part }) => {
              const known = (part as Readonly<Record<string, { value?: unknown } | undefined>>)[field]?.value
              return typeof known === 'number'
                ? withField(next, `${path}/${field}`, { value: known * by, how: 'measured' })
                : next
            }, job)
        // A fuse that holds what flows is another matter than one that protects the cable.
        const protecting = before.checks.filter(
          ({ id, compared, verdict }) =>
            id !== 'cable.fuse' || (compared[1].label === 'conductor carries' && verdict !== 'measure-first'),
        )
        expect(
          better({ ...before, checks: protecting }, scaled('conductors', 'fuseA', factor), [
            'cable.fuse',
            'cable.plug',
            'battery.short-circuit',
          ]),
        ).toEqual([])
        expect(
          better({ ...before, checks: protecting }, scaled('conductors', 'areaMm2', 1 / factor), [
            'cable.fuse',
          ]),
        ).toEqual([])
        const cold = (job.place.coldestC as { value?: number | null } | undefined)?.value
        if (typeof cold === 'number') {
          const colder = withField(job, 'place/coldestC', { value: cold - 10 * factor, how: 'measured' })
          expect(better(before, colder, ['cold.charge-cut', 'battery.place'])).toEqual([])
        }
      }),
      { numRuns: randomJobs, seed },
    )
  })
})

describe('the run agrees', () => {
  it('with the hottest an alternator gets, and with the hours to full, in every demo job and in random ones', () => {
    fc.assert(
      fc.property(anyJob, (job) => {
        const { checks } = assessed(job)
        for (const check of checks.filter(
          ({ id, deciding }) => id === 'alternator.heat' && deciding.length === 0,
        )) {
          const [reaches] = check.compared
          if (typeof reaches.value !== 'number') continue
          const inputs = inputsOfJob(job, 'driving-day')
          const { totals } = runNow('driving-day', plantOf(job, {}, 'new'), inputs)
          const machine = totals.machines.find(({ side }) => side === check.on)
          if (machine?.peakC != null && inputs.driveH > 0) expect(machine.peakC).toBeCloseTo(reaches.value, 0)
        }
        if (Object.keys(job.chargers).length !== 1) return
        for (const check of checks.filter(
          ({ id, deciding }) => id === 'charger.time' && deciding.length === 0,
        )) {
          const [takes] = check.compared
          const { totals } = runNow('mains-night', plantOf(job, {}, 'new'), inputsOfJob(job, 'mains-night'))
          if (takes.label === 'to full' && typeof takes.value === 'number')
            expect(totals.fullAfterH).toBeCloseTo(takes.value, 1)
        }
      }),
      { numRuns: runJobs, seed, examples: starts.map((job): [JobDocument] => [completeJob(job)]) },
    )
  })

  it('and verdicts are four words', () => {
    for (const job of starts)
      for (const { verdict } of assessed(job).checks) expect(verdicts).toContain(verdict)
  })
})
