import { describe, expect, it } from 'vitest'
import type { JobDocument } from '#core/job/document'
import { goodJob, link, straightJob, withArray, withMeasured, withValues, type Values } from '#core/testing'
import type { Network } from '../network'
import { networkOf } from '../of-job'
import { Ways } from '../paths'
import { runAmpacityA } from '../size'

const craft = (kind: JobDocument['job']['craft'], job: JobDocument = goodJob()): JobDocument => ({
  ...job,
  job: { ...job.job, craft: kind },
})
const withoutStartingBattery = (job: JobDocument): JobDocument =>
  withValues(job, { 'startingBatteries/starting-1/present': 'no' })

/** The posts that positive conductors lead through from one on, of the part that they serve: `a > b > c`. */
function wayFrom(start: string, of: string, { runs }: Network): string {
  const posts = [start]
  for (;;) {
    const next = runs.find(
      (run) => run.from === posts.at(-1) && run.of === of && run.role === 'charge' && run.returnOf === null,
    )
    if (!next || posts.includes(next.to)) return posts.join(' > ')
    posts.push(next.to)
  }
}
const way = (start: string, job: JobDocument, of = 'links/link-1'): string =>
  wayFrom(start, of, networkOf(job))

describe('the way from the engine to the house', () => {
  it('leads through a fuse at each end that has a battery, and through the link’s unit', () => {
    const through = (what: string): string =>
      `starting-1-plus > link-1-far-fuse > ${what}link-1-fuse > bar-plus`
    expect(way('starting-1-plus', straightJob({ kind: 'vsr' }))).toBe(through('link-1-relay > '))
    expect(way('starting-1-plus', straightJob({ kind: 'solenoid' }))).toBe(through('link-1-relay > '))
    expect(way('starting-1-plus', straightJob({ kind: 'switch' }))).toBe(through('link-1-relay > '))
    expect(way('starting-1-plus', straightJob({ kind: 'direct' }))).toBe(through(''))
  })
  it('has a switch where someone throws it, and a relay where something does', () => {
    const kindOf = (kind: string): string =>
      networkOf(straightJob({ kind })).posts.find(({ id }) => id === 'link-1-relay')!.kind
    expect(kindOf('switch')).toBe('switch')
    expect(kindOf('vsr')).toBe('relay')
  })
  it('of a DC-DC is fused on both its sides', () => {
    expect(way('starting-1-plus', link({}))).toBe('starting-1-plus > link-1-in-fuse > link-1-in-plus')
    expect(way('link-1-out-plus', link({}))).toBe('link-1-out-plus > link-1-out-fuse > bar-plus')
  })
  it('of an isolator parts the alternator’s cable in two, and the house’s is fused where the lithium is', () => {
    const job = straightJob({ kind: 'diode' })
    expect(way('alternator-1-plus', job, 'alternators/alternator-1')).not.toContain('starting')
    expect(way('link-1-start', job)).toBe('link-1-start > starting-1-plus')
    expect(way('link-1-house', job)).toBe('link-1-house > link-1-fuse > bar-plus')
  })
  it('begins at the machine where there is no starting battery, which then needs no fuse of its own', () => {
    const direct = withoutStartingBattery(straightJob({ kind: 'direct' }))
    expect(way('alternator-1-plus', direct)).toBe('alternator-1-plus > link-1-fuse > bar-plus')
    expect(way('alternator-1-plus', withoutStartingBattery(link({})))).toBe(
      'alternator-1-plus > link-1-in-fuse > link-1-in-plus',
    )
  })
  it('is none where nothing joins them', () => {
    expect(way('starting-1-plus', straightJob({ kind: 'none' }))).toBe('starting-1-plus')
  })
  it('through a plug is fused behind it too', () => {
    const cable = { lengthM: 9, areaMm2: 25, fromPost: 'starting', connectorA: 100, connectorMostMm2: 50 }
    const job = withMeasured(goodJob(), 'conductors', cable, { of: 'links/link-1' })
    expect(way('starting-1-plus', job)).toBe(
      'starting-1-plus > link-1-in-fuse > link-1-plug > link-1-in-far-fuse > link-1-in-plus',
    )
    const lengths = networkOf(job).runs.filter(({ cable: path, role }) => path && role === 'charge')
    expect(lengths.reduce((sum, { lengthM }) => sum + lengthM, 0)).toBeCloseTo(9, 9)
  })
})

describe('the engine', () => {
  const runsOf = (job: JobDocument) => networkOf(job).runs
  it('is turned by its battery, or by the house if it has none', () => {
    const crankedBy = (job: JobDocument) => runsOf(job).find(({ role }) => role === 'cranking')!.from
    expect(crankedBy(goodJob())).toBe('starting-1-plus')
    expect(crankedBy(withoutStartingBattery(straightJob({ kind: 'direct' })))).toBe('bar-plus')
  })
  it('is a machine of its own for each alternator', () => {
    const twin = withMeasured(goodJob(), 'alternators', { nominalV: '12', ratedA: 90 })
    const { units } = networkOf(twin)
    expect(units.filter(({ kind }) => kind === 'alternator')).toHaveLength(2)
  })
})

describe('the negative', () => {
  const bondTo = (job: JobDocument): string | undefined =>
    networkOf(job).runs.find(({ role }) => role === 'bond')?.to
  it('is bonded once: to the engine block afloat, to the body ashore, by no cable of its own in a trailer', () => {
    expect(bondTo(craft('vessel'))).toBe('chassis')
    expect(bondTo(craft('vehicle'))).toBe('body')
    expect(bondTo(craft('trailer'))).toBeUndefined()
    expect(bondTo(withValues(goodJob(), { 'use/negatives': 'separate' }))).toBeUndefined()
  })
  it('has nothing but the battery on its side of the shunt', () => {
    const { runs } = networkOf(goodJob())
    const before = runs.filter(({ from, to }) => from === 'bank-minus' || to === 'bank-minus')
    expect(before.map(({ to }) => to)).toEqual(['shunt'])
  })
  it('goes straight to its bar where nothing counts', () => {
    const job = withValues(goodJob(), { 'use/monitor': 'voltage', 'use/shuntA': null })
    const { runs, posts } = networkOf(job)
    expect(posts.some(({ kind }) => kind === 'shunt')).toBe(false)
    expect(runs.find(({ from }) => from === 'bank-minus')!.to).toBe('bar-minus')
  })
  it('of a branch by the chassis is no cable', () => {
    const job = craft('vehicle', withValues(goodJob(), { 'runs/panel-feed/returnBy': 'chassis' }))
    const back = networkOf(job).runs.find(({ returnOf }) => returnOf === 'panel-feed')!
    expect(back).toMatchObject({ to: 'chassis', areaMm2: null })
  })
})

describe('a bank', () => {
  const bank = (parallel: number, layout: string): Network =>
    networkOf(withValues(goodJob(), { 'candidate/parallel': parallel, 'candidate/layout': layout }))
  const landsOn = ({ runs }: Network, ids: readonly string[]): string[] =>
    ids.map((id) => runs.find((run) => run.id === id)!.to)
  it.each([2, 3, 4])('of %d batteries has a fuse for each, and none of its own for one alone', (count) => {
    const own = bank(count, 'busbar').posts.filter(({ id }) => /^bank-\d-fuse$/.test(id))
    expect(own).toHaveLength(count)
    expect(bank(1, 'busbar').posts.some(({ id }) => /^bank-\d-fuse$/.test(id))).toBe(false)
  })
  const [links, returns] = [1, 2, 3].reduce<[string[], string[]]>(
    ([a, b], i) => [
      [...a, `bank-${i}-link`],
      [...b, `bank-${i}-return`],
    ],
    [[], []],
  )
  it('with bars has equal leads to them', () => {
    expect(landsOn(bank(3, 'busbar'), links)).toEqual(['bank-plus', 'bank-plus', 'bank-plus'])
    expect(landsOn(bank(3, 'busbar'), returns)).toEqual(['bank-minus', 'bank-minus', 'bank-minus'])
  })
  it('as a ladder taken off at one end has both posts at its first battery', () => {
    expect(landsOn(bank(3, 'ladder'), links)).toEqual(['bank-plus', 'bank-1-fuse', 'bank-2-fuse'])
    expect(landsOn(bank(3, 'ladder'), returns)).toEqual(['bank-minus', 'bank-1-minus', 'bank-2-minus'])
  })
  it('as a ladder taken off across has its posts at both ends', () => {
    expect(landsOn(bank(3, 'diagonal'), links)).toEqual(['bank-plus', 'bank-1-fuse', 'bank-2-fuse'])
    expect(landsOn(bank(3, 'diagonal'), returns)).toEqual(['bank-2-minus', 'bank-3-minus', 'bank-minus'])
  })
  it('has leads for the share of its continuous current that each carries, the same in both poles', () => {
    const least = (layout: string, ids: readonly string[]): number[] => {
      const { runs } = bank(3, layout)
      const wholeA = runs.find(({ id }) => id === 'main-lead')!.leastA
      return ids.map((id) => runs.find((run) => run.id === id)!.leastA / wholeA)
    }
    const expectShares = (found: readonly number[], thirds: readonly number[]): void =>
      found.forEach((share, i) => expect(share).toBeCloseTo(thirds[i]! / 3, 9))
    expectShares(least('busbar', [...links, ...returns]), [1, 1, 1, 1, 1, 1])
    expectShares(least('ladder', [...links, ...returns]), [3, 2, 1, 3, 2, 1])
    expectShares(least('diagonal', [...links, ...returns]), [3, 2, 1, 1, 2, 3])
    expectShares(least('busbar', ['main-return-1']), [3])
  })
  it('in a row has equal fuses for its batteries, and links that the main fuse protects', () => {
    const network = bank(3, 'ladder')
    const { posts, runs } = network
    const ways = new Ways(network)
    const ratedA = (id: string): number => posts.find((post) => post.id === id)!.fitting!.ratedA!
    expect(new Set([1, 2, 3].map((i) => ratedA(`bank-${i}-fuse`))).size).toBe(1)
    for (const id of [...links, ...returns]) {
      const run = runs.find((one) => one.id === id)!
      expect(ways.fuseOf(run)!.id, id).toBe('main-fuse')
      expect(runAmpacityA(run, run.areaMm2!, run.count), id).toBeGreaterThanOrEqual(ratedA('main-fuse'))
    }
    expect(ways.fuseOf(runs.find(({ id }) => id === 'bank-2-lead')!)!.id).toBe('bank-2-fuse')
  })
})

describe('a branch', () => {
  const unit = (id: string, job: JobDocument) => networkOf(job).units.find((one) => one.id === id)
  const load = (values: Values, job: JobDocument = goodJob()): JobDocument =>
    withMeasured(job, 'loads', { supply: 'dc', hours: 1, ...values })
  it('of its own is for a load from 20 A on; smaller ones share the panel', () => {
    expect(unit('load-1', load({ amps: 20, together: 'yes' }))).toMatchObject({ kind: 'load', amps: 20 })
    expect(unit('load-1', load({ amps: 19, together: 'yes' }))).toBeUndefined()
  })
  it('of the panel carries the loads that are on together, except those with branches of their own', () => {
    expect(unit('panel', goodJob())).toMatchObject({ amps: 40 })
    expect(unit('panel', load({ amps: 25, together: 'yes' }))).toMatchObject({ amps: 15 })
    const two = load({ amps: 8, together: 'yes' }, load({ amps: 12, together: 'yes' }))
    expect(unit('panel', withValues(two, { 'use/dcAtOnceA': null }))).toMatchObject({ amps: 20 })
  })
  it('does not exist for a load on the inverter', () => {
    expect(unit('load-1', load({ supply: 'ac', amps: 50, watts: 600 }))).toBeUndefined()
  })
  it('of an inverter takes its power by its efficiency', () => {
    const job = withMeasured(goodJob(), 'inverters', { continuousW: 900, efficiency: 90 })
    expect(unit('inverter-1', job)).toMatchObject({ kind: 'inverter', takesW: 1000 })
  })
  it('of panels is that of a controller of their own, and none where a DC-DC takes them', () => {
    expect(unit('array-1', withArray({ through: 'own' }))).toMatchObject({ kind: 'source', from: 'sun' })
    expect(unit('array-1', withArray({ through: 'dcdc' }))).toBeUndefined()
  })
  it('of a charger lands where it charges', () => {
    const stub = (job: JobDocument) => networkOf(job).runs.find(({ id }) => id === 'charger-1-stub')!
    expect(stub(goodJob()).from).toBe('bar-plus')
    expect(stub(withValues(goodJob(), { 'chargers/charger-1/feeds': 'starting' })).from).toBe(
      'starting-1-plus',
    )
  })
  it('that was added is new, and a spare way draws nothing', () => {
    const added = (what: string): JobDocument => withMeasured(goodJob(), 'branches', { what, amps: 12 })
    expect(unit('branch-1', added('fans'))).toMatchObject({ state: 'new', amps: 12 })
    expect(unit('branch-1', added('spare'))).toMatchObject({ amps: 0 })
  })
})

describe('old lead that stays', () => {
  const mixed = (how: string, values: Values = {}): Network =>
    networkOf(withValues(goodJob(), { 'use/mixed': how, ...values }))
  it('in parallel has its own fuse and its own switch, behind a relay a relay', () => {
    const kinds = ({ posts }: Network): string[] =>
      ['lead-fuse', 'lead-switch'].map((id) => posts.find((post) => post.id === id)!.kind)
    expect(kinds(mixed('hybrid'))).toEqual(['fuse', 'switch'])
    expect(kinds(mixed('relay'))).toEqual(['fuse', 'relay'])
  })
  it('in parallel with stops parts the lithium from it by one contactor', () => {
    const steps = mixed('hybrid', { 'use/chargeStop': 'yes' }).runs.find(({ to }) => to === 'main-stop')!
    expect(steps.from).toBe('main-switch')
  })
  it('behind a DC-DC is fed from the bar, fused at both ends', () => {
    const network = mixed('dcdc', { 'use/betweenA': 25 })
    expect(wayFrom('bar-plus', 'houseBank', network)).toBe('bar-plus > lead-dcdc-in-fuse > lead-dcdc-in-plus')
    expect(wayFrom('lead-dcdc-out-plus', 'houseBank', network)).toBe(
      'lead-dcdc-out-plus > lead-fuse > lead-plus',
    )
    expect(network.units.find(({ id }) => id === 'lead-dcdc')).toMatchObject({ mostA: 25 })
  })
  it('is gone where it is replaced', () => {
    expect(mixed('replaced').posts.some(({ id }) => id.startsWith('lead-'))).toBe(false)
    expect(mixed('replaced').gone.map(({ of }) => of)).toContain('houseBank')
    expect(mixed('hybrid').gone.map(({ of }) => of)).not.toContain('houseBank')
  })
})

describe('a motorcycle', () => {
  it('has neither bars nor a main switch, but where old lead is joined each battery has its fuse', () => {
    const kinds = (job: JobDocument): Set<string> => new Set(networkOf(job).posts.map(({ kind }) => kind))
    const small = craft('motorcycle', withValues(goodJob(), { 'use/monitor': 'none' }))
    expect([...kinds(small)]).not.toContain('bar')
    expect([...kinds(small)]).not.toContain('switch')
    const joined = networkOf(withValues(small, { 'use/mixed': 'hybrid' })).posts
    expect(joined.filter(({ id }) => id === 'main-fuse' || id === 'lead-fuse')).toHaveLength(2)
  })
})
