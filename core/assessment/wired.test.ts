import fc from 'fast-check'
import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import type { JobDocument } from '#core/job/document'
import { mostConductors } from '#core/wiring/size'
import { assessed, anyJobFrom, goodJob, longWayJob, withValues, long } from '#core/testing'
import { withSpecified } from '#core/job/as-specified'
import { isWired } from '#core/job/wired'
import { wiredJob, wiringVerdictOf } from './wired'

const folder = new URL('../../demo/jobs/', import.meta.url)
const starts = [
  goodJob(),
  ...readdirSync(folder).map(
    (name) => JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as JobDocument,
  ),
]

describe('the verdict of the wiring', () => {
  it('stands next to that of the job: a cable that loses too much does not hide behind a job that suits', () => {
    expect(assessed(longWayJob()).verdict).toBe('suits')
    const { verdict, checks } = wiringVerdictOf(longWayJob())
    expect(verdict).toBe('suits-once-changed')
    expect(checks.find(({ key }) => key === 'wiring.drop@runs/charger-1-feed')!.verdict).toBe(
      'suits-once-changed',
    )
  })

  it('speaks of the fuse of a return as one in its positive, and of no more current than its own run has', () => {
    // The starter’s return goes the same way: more comes back there than its fuse carries.
    const job = starts.find(({ job: { number } }) => number === '0417')!
    const { checks, network } = wiredJob(job, {})
    const ofRun = (id: string) => checks.find(({ key }) => key === `wiring.fuse-rating@runs/${id}`)!
    const flowsIn = (id: string): number => Number(/(\d+) A flow/.exec(ofRun(id).formula)![1])
    const returns = network.runs.filter(({ id, returnOf }) => returnOf !== null && ofRun(id))
    expect(returns.length).toBeGreaterThan(2)
    for (const { id, returnOf } of returns) {
      expect(ofRun(id).summary).toContain('in its positive')
      expect(flowsIn(id)).toBeLessThanOrEqual(flowsIn(returnOf!))
    }
    expect(ofRun('link-1-feed').summary).not.toContain('in its positive')
  })

  it('gives the main leads the same current in both poles, and says why it is more than flows', () => {
    const job = starts.find(({ job: { number } }) => number === '0427')!
    const { runs } = wiredJob(job, {})
    const of = (id: string) => runs.find((one) => one.id === id)!
    // Two batteries of 100 A, and the shop’s 45 % of that.
    for (const [id, amps] of [
      ['main-lead', 90],
      ['main-return-1', 90],
      ['bank-1-lead', 45],
      ['bank-1-link', 45],
      ['bank-1-return', 45],
    ] as const)
      expect(of(id), id).toMatchObject({ amps, at: 'Share of the battery’s continuous current' })
    expect(of('charger-1-feed').at).toBe('Charging from Basin charger')
  })

  it('asks for a bond where the job has metal to bond, and not on a trailer', () => {
    const bondOf = (wanted: string) => {
      const job = starts.find(({ job: { number } }) => number === wanted)!
      return wiredJob(job, {}).checks.find(({ id }) => id === 'wiring.bond')?.verdict
    }
    expect(['0417', '0427', '0430'].map(bondOf)).toEqual(['suits', undefined, undefined])
  })

  it('is of checks of the wiring alone', () => {
    const { checks } = wiringVerdictOf(goodJob())
    expect(checks.length).toBeGreaterThan(10)
    expect(checks.every(({ id }) => id.startsWith('wiring.'))).toBe(true)
  })

  it('counts once an answer is chosen or something of the wiring is set by hand', () => {
    expect(isWired(goodJob())).toBe(false)
    expect(isWired(withValues(goodJob(), { 'runs/charger-1-feed/lengthM': 3 }))).toBe(true)
    const answer = { answer: 'x', name: 'x', changes: [], parts: [] }
    expect(isWired(withSpecified(goodJob(), answer as never))).toBe(true)
  })
})

describe('the wiring of any job', () => {
  it('accepts its own proposals: no size, fuse or bar fails', () => {
    fc.assert(
      fc.property(anyJobFrom(starts), (job) => {
        const { network, checks } = wiredJob(job, {})
        const own = new Set([
          ...network.runs.filter(({ areaKnown }) => areaKnown === 'sized').map(({ id }) => `runs/${id}`),
          ...network.posts.filter(({ state }) => state === 'new').map(({ id }) => `fittings/${id}`),
        ])
        const wanting = checks.filter(
          ({ id, on, verdict }) =>
            own.has(on) &&
            verdict === 'suits-once-changed' &&
            ['wiring.drop', 'wiring.ampacity'].includes(id),
        )
        // Past the thickest that is made, side by side as often as they may be, the plan says so.
        const most = network.runs.filter(({ areaMm2, count }) => areaMm2 === 120 && count === mostConductors)
        if (most.length === 0) expect(wanting.map(({ key, summary }) => ({ key, summary }))).toEqual([])
      }),
      { numRuns: 150, seed: 20261127 },
    )
  })
})

describe('an inverter that its cable holds back', () => {
  // The bank gives all that is asked: what is missing is the cable's fault.
  const thin = (areaMm2: number, lengthM: number): JobDocument =>
    withValues(goodJob(), {
      'inverters/inverter-1/continuousW': 1500,
      'runs/inverter-1-feed/areaMm2': areaMm2,
      'runs/inverter-1-feed/lengthM': lengthM,
    })
  const drop = (job: JobDocument) =>
    wiringVerdictOf(job).checks.find(({ key }) => key === 'wiring.drop@runs/inverter-1-feed')!

  it.each([
    [6, 6],
    [10, 10],
    [16, 8],
    [16, 12],
    [25, 15],
  ])('%i mm² over %i m: is told so, and the size that is asked for settles it', (areaMm2, lengthM) => {
    const { verdict, summary, remedies } = drop(thin(areaMm2, lengthM))
    expect(verdict).toBe('suits-once-changed')
    expect(summary).toContain('More does not flow')
    const [thicker] = remedies
    const count = { 'runs/inverter-1-feed/count': thicker!.values?.count ?? 1 }
    expect(drop(withValues(thin(thicker!.value as number, lengthM), count)).verdict).toBe('suits')
  })
})

describe('a run that is too thin', () => {
  const sized = starts.flatMap((job) => wiredJob(job, {}).network.runs.map(({ id }) => [job, id] as const))
  const checks = ['wiring.drop', 'wiring.ampacity', 'wiring.fuse-rating']

  it('is settled by the size that is asked for, though more flows then', long, () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...sized),
        fc.constantFrom(2.5, 6, 16, 50),
        fc.integer({ min: 3, max: 12 }),
        ([job, id], areaMm2, lengthM) => {
          const thin = withValues(job, { [`runs/${id}/areaMm2`]: areaMm2, [`runs/${id}/lengthM`]: lengthM })
          const found = wiringVerdictOf(thin).checks.filter(
            (one) => one.on === `runs/${id}` && checks.includes(one.id),
          )
          for (const { key, on, remedies } of found)
            for (const { value, values } of remedies.filter(
              (one) => one.id === 'run.thicker' && one.on === on,
            )) {
              const count = values?.count === undefined ? {} : { [`${on}/count`]: values.count }
              const after = withValues(thin, { [`${on}/areaMm2`]: value as number, ...count })
              const left = wiringVerdictOf(after).checks.filter((one) => one.key === key)
              expect(left.map(({ verdict, summary }) => ({ verdict, summary }))).not.toContainEqual(
                expect.objectContaining({ verdict: 'suits-once-changed' }),
              )
            }
        },
      ),
      { numRuns: 80, seed: 20261127 },
    )
  })
})

describe('a DC-DC that can be set, on a cable that loses too much', () => {
  const trailer = starts.find(({ job: { number } }) => number === '0430')!
  const dropOf = (job: JobDocument) =>
    wiringVerdictOf(job).checks.find(({ key }) => key === 'wiring.drop@runs/link-1-in-feed')!

  it.each([
    [10, 9],
    [16, 9],
    [10, 6],
    [16, 12],
  ])(
    '%i mm² over %i m: a lower current settles it, and the next ampere would not be far',
    (areaMm2, lengthM) => {
      const at = (amps: number): JobDocument =>
        withValues(trailer, {
          'conductors/cable-1/areaMm2': areaMm2,
          'conductors/cable-1/lengthM': lengthM,
          'links/link-1/ratedA': amps,
        })
      const found = dropOf(at(30))
      expect(found.verdict).toBe('suits-once-changed')
      const held = found.remedies.find(({ id }) => id === 'charger.limit-current')!
      expect(held.on).toBe('links/link-1')
      const amps = Number(held.value)
      expect(amps).toBeGreaterThanOrEqual(10)
      expect(amps).toBeLessThan(30)
      expect(dropOf(at(amps)).verdict).toBe('suits')
      expect(dropOf(at(amps * 1.25)).verdict).toBe('suits-once-changed')
    },
  )

  it('is not offered a lower current where it cannot be set, or would be left with too little', () => {
    const remediesOf = (values: Parameters<typeof withValues>[1]): string[] =>
      dropOf(withValues(trailer, values)).remedies.map(({ id }) => id)
    expect(remediesOf({ 'links/link-1/currentLimit': 'fixed' })).not.toContain('charger.limit-current')
    expect(remediesOf({ 'conductors/cable-1/areaMm2': 4 })).not.toContain('charger.limit-current')
  })
})

describe('a fuse that is too small', () => {
  const fused = starts.flatMap((job) =>
    wiredJob(job, {})
      .network.posts.filter(({ kind }) => kind === 'fuse')
      .map(({ id }) => [job, id] as const),
  )
  const checks = ['wiring.fuse-rating', 'wiring.fuse-surge']

  it('is settled by the requested rating, though the old one limited the current', long, () => {
    let tried = 0
    fc.assert(
      fc.property(fc.constantFrom(...fused), fc.constantFrom(1, 5, 15, 40), ([job, id], ratedA) => {
        const small = withValues(job, { [`fittings/${id}/ratedA`]: ratedA })
        for (const { id: check, key, remedies } of wiringVerdictOf(small).checks)
          for (const { value } of remedies.filter(
            (one) => checks.includes(check) && one.id === 'fitting.fuse' && one.on === `fittings/${id}`,
          )) {
            tried++
            const after = withValues(small, { [`fittings/${id}/ratedA`]: value as number })
            const left = wiringVerdictOf(after).checks.find((one) => one.key === key)
            expect({ key, verdict: left?.verdict ?? 'suits' }).toEqual({ key, verdict: 'suits' })
          }
      }),
      { numRuns: 40, seed: 20261128 },
    )
    expect(tried).toBeGreaterThan(40)
  })
})
