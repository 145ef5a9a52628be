import fc from 'fast-check'
import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import type { JobDocument } from '#core/job/document'
import { currentShares } from '#core/physics/sharing'
import {
  answeredWith,
  anyJobFrom,
  evenly,
  goodJob,
  link,
  straightJob,
  withMeasured,
  withValues,
  type Values,
  long,
} from '#core/testing'
import { casesOf } from './cases'
import { boltedOhm, circuitOf, startOf } from './circuits'
import { runOhm } from './run-ohm'
import type { Circuit } from '#core/circuit/circuit'
import { battery, converter, current, diode, held, power, resistance, type Law } from '#core/circuit/law'
import type { LineKind, Network } from './network'
import { partsOfWiring } from './lists'
import { networkOf } from './of-job'
import { solveCircuit } from '#core/circuit/solution'
import { Solved } from './solved'
import { SparseEquations } from '#core/circuit/sparse'
import { runAmpacityA } from './size'
import { fuseShare } from './size-rules'
import { Ways } from './paths'

const folder = new URL('../../demo/jobs/', import.meta.url)
const demos = readdirSync(folder).map(
  (name) =>
    [
      name.replace('.json', ''),
      JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as JobDocument,
    ] as const,
)
const demo = (number: string): JobDocument => demos.find(([name]) => name.startsWith(number))![1]

/** A circuit of one source and one user over a resistance each way. */
const simple = (source: Law, user: Law, ohm: number): Circuit => ({
  nodes: ['zero', 'source', 'user', 'back'],
  ground: 'zero',
  resistors: [
    { id: 'there', from: 'source', to: 'user', ohm: ohm / 2 },
    { id: 'back', from: 'back', to: 'zero', ohm: ohm / 2 },
  ],
  elements: [
    { id: 'source', nodes: ['source', 'zero'], law: source },
    { id: 'user', nodes: ['user', 'back'], law: user },
  ],
})
const start = new Map([
  ['source', 12],
  ['user', 12],
])

describe('a law', () => {
  const laws: Readonly<Record<string, Law>> = {
    battery: battery(12.8, 0.004),
    'lead on charge': battery(12.6, 0.008, 0.4),
    held: held(14.4, 40, 0.003),
    current: current(20, 6),
    resistance: resistance(0.4),
    diode: diode(0.7, 0.001),
    power: power(2000, 10.8, 0.3),
    converter: converter({ setV: 14.4, mostA: 30, ohm: 0.003, efficiency: 0.9, fullV: 11.8, bandV: 0.3 }),
  }
  it.each(Object.entries(laws))('of %s has slopes of its currents that add up to zero', (_name, law) => {
    fc.assert(
      fc.property(fc.array(evenly(-2, 16), { minLength: 4, maxLength: 4 }), (all) => {
        const v = all.slice(0, law.terminals)
        const slopes = law.slopes(v)
        expect(law.amps(v).reduce((sum, i) => sum + i, 0)).toBeCloseTo(0, 9)
        v.forEach((_, k) => {
          const step = 1e-7
          const near = (sign: number): readonly number[] =>
            law.amps(v.map((x, i) => (i === k ? x + sign * step : x)))
          const [up, down] = [near(1), near(-1)]
          up.forEach((i, j) => {
            const seen = (i - down[j]!) / (2 * step)
            // At a kink the slope is that of one side.
            const kink =
              Math.abs((i - law.amps(v)[j]!) / step - (law.amps(v)[j]! - down[j]!) / step) >
              1e-3 * (1 + Math.abs(seen))
            if (!kink) expect(slopes[j]![k]!).toBeCloseTo(seen, 1)
          })
        })
      }),
    )
  })
  it('of a converter keeps the power, less its loss', () => {
    const law = converter({ setV: 14.4, mostA: 30, ohm: 0.003, efficiency: 0.9, fullV: 11.8, bandV: 0.3 })
    const [given, , taken] = law.amps([13, 0, 12.5, 0])
    expect(given).toBeCloseTo(30)
    expect(-taken! * 12.5 * 0.9).toBeCloseTo(30 * 13, 6)
  })
})

describe('equations that are nearly empty', () => {
  it('are solved: the found parts give the right side', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 40 }),
        fc.array(fc.tuple(evenly(0, 1), evenly(0, 1), evenly(0.1, 100)), { maxLength: 60 }),
        fc.array(evenly(-5, 5), { minLength: 40, maxLength: 40 }),
        (size, links, right) => {
          const pairs = links.map(
            ([a, b, g]) => [Math.floor(a * (size - 1)), Math.floor(b * (size - 1)), g] as const,
          )
          const equations = new SparseEquations(
            size,
            pairs.map(([a, b]) => [a, b] as const),
          )
          const rows = Array.from({ length: size }, () => new Map<number, number>())
          const add = (row: number, column: number, value: number): void => {
            rows[row]!.set(column, (rows[row]!.get(column) ?? 0) + value)
            equations.values[equations.at(row, column)]! += value
          }
          for (let i = 0; i < size; i++) add(i, i, 1)
          for (const [a, b, g] of pairs) {
            if (a === b) continue
            add(a, a, g)
            add(b, b, g)
            add(a, b, -g)
            add(b, a, -g)
          }
          const found = equations.solve(Float64Array.from(right.slice(0, size)))
          rows.forEach((row, i) => {
            expect([...row].reduce((sum, [column, value]) => sum + value * found[column]!, 0)).toBeCloseTo(
              right[i]!,
              6,
            )
          })
        },
      ),
    )
  })
})

describe('a circuit', () => {
  it('of a battery and a resistance is Ohm’s law', () => {
    const { amps, volts } = solveCircuit(simple(battery(12.8, 0.01), resistance(1.2), 0.07), start)
    expect(amps.get('there')).toBeCloseTo(12.8 / 1.28, 9)
    expect(amps.get('back')).toBeCloseTo(12.8 / 1.28, 9)
    expect(volts.get('back')).toBeCloseTo((12.8 / 1.28) * 0.035, 9)
  })
  it('of constant power is the root of its quadratic', () => {
    const [emf, ohm, watts] = [12.9, 0.02, 1200]
    const { amps } = solveCircuit(simple(battery(emf, 0.005), power(watts, 10.5, 0.3), ohm - 0.005), start)
    expect(amps.get('there')).toBeCloseTo((emf - Math.sqrt(emf * emf - 4 * watts * ohm)) / (2 * ohm), 6)
  })
  it('whose cable cannot carry a load holds it at its lowest voltage, with the current of the cable', () => {
    const { volts, amps } = solveCircuit(simple(battery(12.9, 0.005), power(3000, 10.5, 0.3), 0.05), start)
    const left = volts.get('user')! - volts.get('back')!
    expect(left).toBeGreaterThan(10.2)
    expect(left).toBeLessThan(10.5)
    expect(amps.get('there')).toBeCloseTo((12.9 - left) / 0.055, 6)
  })
  it('of a source with enough current holds its voltage, with too little its current', () => {
    expect(
      solveCircuit(simple(held(14.4, 90, 0.003), resistance(0.5), 0.1), start).amps.get('there'),
    ).toBeCloseTo(14.4 / 0.603, 3)
    expect(
      solveCircuit(simple(held(14.4, 10, 0.003), resistance(0.5), 0.1), start).amps.get('there'),
    ).toBeCloseTo(10, 3)
  })
  it('of a diode lets nothing back', () => {
    const nothing = solveCircuit(simple(battery(12, 0.01), battery(13, 0.01), 0.1), start).amps.get('there')!
    expect(nothing).toBeLessThan(0)
    const circuit = simple(battery(12, 0.01), battery(13, 0.01), 0.1)
    const parted: Circuit = {
      ...circuit,
      nodes: [...circuit.nodes, 'behind'],
      resistors: [{ id: 'there', from: 'behind', to: 'user', ohm: 0.05 }, circuit.resistors[1]!],
      elements: [...circuit.elements, { id: 'diode', nodes: ['source', 'behind'], law: diode(0.7, 0.001) }],
    }
    expect(solveCircuit(parted, start).amps.get('there')).toBeCloseTo(0, 4)
  })
  it.each(['ladder', 'diagonal', 'busbar'] as const)(
    'of a bank joined as a %s shares the current as the closed form says',
    (layout) => {
      const [count, ownOhm, linkOhm] = [4, 0.008, 0.0004]
      const nodes = ['zero', 'plus', ...Array.from({ length: count }, (_, i) => [`p${i}`, `m${i}`]).flat()]
      const link = (id: string, from: string, to: string, ohm: number): Circuit['resistors'][number] => ({
        id,
        from,
        to,
        ohm,
      })
      const rungs = Array.from({ length: count - 1 }, (_, i) => [
        link(`p${i}`, `p${i}`, `p${i + 1}`, linkOhm),
        link(`m${i}`, `m${i}`, `m${i + 1}`, linkOhm),
      ]).flat()
      const tiny = 1e-9
      const last = layout === 'diagonal' ? count - 1 : 0
      const joined =
        layout === 'busbar'
          ? Array.from({ length: count }, (_, i) => [
              link(`a${i}`, `p${i}`, 'plus', 0.001),
              link(`b${i}`, `m${i}`, 'zero', 0.001),
            ]).flat()
          : [...rungs, link('first', 'p0', 'plus', tiny), link('last', `m${last}`, 'zero', tiny)]
      const { volts } = solveCircuit(
        {
          nodes,
          ground: 'zero',
          resistors: joined,
          elements: [
            ...Array.from({ length: count }, (_, i) => ({
              id: `b${i}`,
              nodes: [`p${i}`, `m${i}`],
              law: battery(13.2, ownOhm),
            })),
            { id: 'load', nodes: ['plus', 'zero'], law: current(100, 6) },
          ],
        },
        new Map(nodes.map((node) => [node, node.startsWith('m') || node === 'zero' ? 0 : 13])),
      )
      const shares = Array.from(
        { length: count },
        (_, i) => (13.2 - (volts.get(`p${i}`)! - volts.get(`m${i}`)!)) / ownOhm / 100,
      )
      currentShares(count, ownOhm, linkOhm, layout).forEach((share, i) => {
        expect(shares[i]).toBeCloseTo(share, 4)
      })
    },
  )
})

/** Largest sum of currents at a post that is not zero, A, in any case of a network. */
function worstSumA(network: Network): number {
  let worst = 0
  for (const at of casesOf(network))
    worst = Math.max(worst, solveCircuit(circuitOf(network, at), startOf(network, at)).residualA)
  return worst
}

describe('the network of a job', () => {
  it.each(demos)('of %s has currents that add up to zero at every post, in every case', (_name, job) => {
    const network = networkOf(job)
    expect(worstSumA(network)).toBeLessThan(1e-3)
    expect(new Set(network.posts.map(({ id }) => id)).size).toBe(network.posts.length)
    expect(new Set(network.runs.map(({ id }) => id)).size).toBe(network.runs.length)
    for (const { id } of [...network.posts, ...network.runs]) expect(id).toMatch(/^[a-z][a-z0-9-]{0,39}$/)
  })
  it('of any job too, and every chosen fuse carries the current and protects its run', long, () => {
    fc.assert(
      fc.property(anyJobFrom([...demos.map(([, job]) => job), goodJob()]), (job) => {
        const network = networkOf(job)
        expect(worstSumA(network)).toBeLessThan(1e-3)
        const solved = new Solved(network)
        const ways = new Ways(network)
        for (const run of network.runs) {
          const fuse = ways.fuseOf(run)
          if (run.areaKnown !== 'sized' || run.areaMm2 === null || !fuse || fuse.state === 'found') continue
          if (run.role === 'cranking' || run.role === 'bond' || fuse.set.length > 0) continue
          const carries = runAmpacityA(run, run.areaMm2, run.count)
          if (carries >= fuse.fitting!.ratedA!) continue
          // Only where nothing that is sold carries it.
          expect({ run: run.id, count: run.count, carries }).toMatchObject({ count: 4 })
        }
        for (const post of network.posts) {
          if (post.kind !== 'fuse' || post.state === 'found' || post.set.length > 0) continue
          const amps = Math.max(
            ...network.runs
              .filter(({ from, to, role }) => role !== 'cranking' && (from === post.id || to === post.id))
              .map(({ id }) => solved.design.get(id)!.amps),
          )
          if (post.fitting!.ratedA! < 500) expect(amps * 0.99).toBeLessThanOrEqual(post.fitting!.ratedA!)
        }
      }),
      { numRuns: 150, seed: 14 },
    )
  })

  it.each(['diode', 'direct', 'vsr', 'dcdc'])(
    'has the shorts of its cases solved one by one, across a %s',
    (kind) => {
      const network = networkOf(withValues(demo('0417'), { 'links/link-1/kind': kind }))
      const solved = new Solved(network)
      for (const at of solved.cases.filter((one) => one.kind === 'short')) {
        const post = network.posts.find(({ id }) => at.id === `short-${id}`)!
        const { volts } = solved.in(at)
        const amps = Math.abs(volts.get(post.id)! - volts.get(post.opposite)!) / boltedOhm
        expect(solved.shortA(post.id) / amps).toBeCloseTo(1, 5)
      }
    },
  )

  const fittingOf = (job: JobDocument, id: string) =>
    networkOf(job).posts.find((post) => post.id === id)?.fitting
  const run = (network: Network, id: string) => network.runs.find((one) => one.id === id)!

  it('of the workboat has a class T main fuse, graded over the winch, on a pack of 200 Ah', () => {
    const main = fittingOf(demo('0417'), 'main-fuse')!
    const winch = fittingOf(demo('0417'), 'load-1-fuse')!
    expect(main).toMatchObject({ family: 'class-t', aicA: 20_000 })
    expect(winch.ratedA! * fuseShare).toBeGreaterThanOrEqual(85)
    expect(main.ratedA).toBeGreaterThan(winch.ratedA!)
  })
  it('of the trailer leads nine metres through a plug, fused at both ends, and gives the voltage at the DC-DC', () => {
    const network = networkOf(demo('0430'))
    expect(
      network.runs.filter(({ cable }) => cable === 'conductors/cable-1').map(({ lengthM }) => lengthM),
    ).toEqual([4.5, 4.5, 9])
    expect(
      network.posts
        .filter(({ id }) => /^link-1-(in-fuse|plug|in-far-fuse)$/.test(id))
        .map(({ kind }) => kind),
    ).toEqual(['fuse', 'plug', 'fuse'])
    const solved = new Solved(network)
    const { volts, amps } = solved.in(solved.cases.find(({ id }) => id === 'cruise')!)
    const left = volts.get('link-1-in-plus')! - volts.get('link-1-in-minus')!
    const held = volts.get('starting-1-plus')! - volts.get('starting-1-minus')!
    const way = network.runs.filter(({ id }) => id.startsWith('link-1-in-'))
    const lost = way.reduce((sum, run) => sum + Math.abs(amps.get(run.id)!) * runOhm(run, network.cableC), 0)
    expect(left).toBeCloseTo(held - lost, 6)
    // Eighteen metres of 10 mm² at some 30 A: more than a volt.
    expect(lost).toBeGreaterThan(1)
    expect(left).toBeGreaterThan(12)
  })
  it('of the library bus has 24 V and 12 V, and the converter between keeps the power', () => {
    const network = networkOf(demo('0424'))
    expect(network.posts.find(({ id }) => id === 'starting-1-plus')!.nominalV).toBe(24)
    expect(network.posts.find(({ id }) => id === 'bar-plus')!.nominalV).toBe(12)
    const solved = new Solved(network)
    const { volts, amps } = solved.in(solved.cases.find(({ id }) => id === 'cruise')!)
    const out = amps.get('link-1-out-feed')! * (volts.get('link-1-out-plus')! - volts.get('link-1-minus')!)
    const taken = amps.get('link-1-in-feed')! * (volts.get('link-1-in-plus')! - volts.get('link-1-minus')!)
    const { efficiency } = network.units.find((unit) => unit.kind === 'dcdc')!
    expect(out / taken).toBeCloseTo(efficiency, 6)
  })
  it('of the canal tug joins lead and lithium on one bar, each behind its own fuse and switch, and stops', () => {
    const network = networkOf(demo('0427'))
    const ids = network.posts.map(({ id }) => id)
    for (const id of ['bank-1-fuse', 'bank-2-fuse', 'main-switch', 'lead-fuse', 'lead-switch'])
      expect(ids).toContain(id)
    expect(network.lines.filter(({ kind }) => kind === 'stop').length).toBeGreaterThanOrEqual(3)
  })
  it('protects every new conductor by a smaller fuse, except the bond and runs that no fuse can precede', () => {
    const jobs = demos.flatMap(([, job]) =>
      ['replaced', 'hybrid', 'relay', 'dcdc'].flatMap((mixed) =>
        [1, 3].map((parallel) =>
          withValues(job, { 'use/mixed': mixed, 'candidate/parallel': parallel, 'use/monitor': 'shunt' }),
        ),
      ),
    )
    for (const network of jobs.map((job) => networkOf(job))) {
      const ways = new Ways(network)
      // Without a positive bar nothing but the branches has a fuse.
      const small = ways.post('bar-plus') === null
      for (const one of network.runs) {
        if (one.state !== 'new' || one.areaMm2 === null || one.role === 'bond') continue
        const ratedA = ways.fuseOf(one)?.fitting?.ratedA ?? (small && one.role === 'main' ? 0 : Infinity)
        expect([one.id, ratedA <= runAmpacityA(one, one.areaMm2, one.count)]).toEqual([one.id, true])
      }
    }
  })
  describe('takes a run for one of the engine space', () => {
    const inEngineSpace = (job: JobDocument, run: string): boolean =>
      networkOf(job).runs.find(({ id }) => id === run)!.engineSpace
    it('where an end of it stands there: an alternator, a DC-DC, a bank', () => {
      expect(inEngineSpace(goodJob(), 'alternator-1-feed')).toBe(true)
      expect(inEngineSpace(goodJob(), 'link-1-in-feed')).toBe(false)
      expect(inEngineSpace(link({ stands: 'engine' }), 'link-1-in-feed')).toBe(true)
      expect(inEngineSpace(withValues(goodJob(), { 'place/where': 'engine' }), 'main-lead')).toBe(true)
    })
    it('where a fuse of it is said to stand there', () => {
      const job = withValues(goodJob(), { 'fittings/charger-1-fuse/place': 'engine' })
      expect(inEngineSpace(job, 'charger-1-feed')).toBe(true)
      expect(networkOf(job).posts.find(({ id }) => id === 'charger-1-fuse')).toMatchObject({
        place: 'engine',
        set: ['place'],
      })
    })
    it('not where someone followed it and says otherwise', () => {
      const followed = withValues(goodJob(), { 'runs/alternator-1-feed/engineSpace': 'no' })
      expect(inEngineSpace(followed, 'alternator-1-feed')).toBe(false)
    })
    it('and makes it no thinner', () => {
      const sizeIn = (stands: string): number =>
        networkOf(link({ stands, ratedA: 100 })).runs.find(({ id }) => id === 'link-1-out-feed')!.areaMm2!
      expect(sizeIn('engine')).toBeGreaterThanOrEqual(sizeIn('cool'))
    })
  })
  describe('takes the air along a run', () => {
    const runIn = (values: Values, id: string) =>
      networkOf(withValues(goodJob(), values)).runs.find((run) => run.id === id)!
    it('of a main lead to be as hot as it gets where the battery stands, and sizes it for that', () => {
      expect(runIn({ 'place/hottestC': 44 }, 'main-lead').airC).toBe(44)
      const mm2 = (hottestC: number): number => runIn({ 'place/hottestC': hottestC }, 'main-lead').areaMm2!
      expect(mm2(75)).toBeGreaterThan(mm2(25))
    })
    it('of any other for the table’s, and of each as someone measured it', () => {
      expect(runIn({ 'place/hottestC': 44 }, 'charger-1-feed').airC).toBe(30)
      expect(runIn({ 'runs/charger-1-feed/airC': 55 }, 'charger-1-feed').airC).toBe(55)
      expect(runIn({ 'place/hottestC': 44, 'runs/main-lead/airC': 25 }, 'main-lead').airC).toBe(25)
    })
  })
  describe('of a battery whose signal stops its sources and loads', () => {
    const stopping = (values: Values = {}) =>
      withValues(goodJob(), { 'candidate/warning': 'stop', ...values })
    const standsOn = (job: JobDocument, fuse: string): string =>
      networkOf(job).runs.find(({ to }) => to === fuse)!.from
    it('has loads and inverters on bars of their own behind a contactor, and sources on the first', () => {
      const job = withMeasured(stopping(), 'inverters', { continuousW: 1000 })
      for (const fuse of ['panel-fuse', 'inverter-1-fuse']) expect(standsOn(job, fuse)).toBe('bar-2-plus')
      expect(standsOn(job, 'charger-1-fuse')).toBe('bar-plus')
      const { posts, lines } = networkOf(job)
      const contactor = posts.find(({ id }) => id === 'load-stop')!
      const main = posts.find(({ id }) => id === 'main-fuse')!
      expect(contactor.fitting!.ratedA).toBeGreaterThanOrEqual(main.fitting!.ratedA!)
      expect(lines.filter(({ of }) => of === 'candidate')).toMatchObject([{ kind: 'stop', fuseA: 3 }])
    })
    it('has it for a single load that runs alone, ahead of everything behind it', () => {
      const winch = { supply: 'dc', amps: 90, together: 'no' }
      const job = withMeasured(stopping({ 'use/dcAtOnceA': 0 }), 'loads', winch)
      const { runs } = networkOf(job)
      expect(standsOn(job, 'load-1-fuse')).toBe('bar-2-plus')
      const places = ['load-feed', 'bar-strap', 'load-1-stub'].map((id) =>
        runs.findIndex((run) => run.id === id),
      )
      expect(places).toEqual(places.toSorted((a, b) => a - b))
      expect(places).not.toContain(-1)
    })
    it('has no such contactor where lead is joined to it, or where it gives no signal', () => {
      const hybrid = stopping({ 'use/mixed': 'hybrid', 'use/chargeStop': 'yes' })
      for (const job of [hybrid, goodJob()])
        expect(networkOf(job).posts.some(({ id }) => id === 'load-stop')).toBe(false)
    })
    it('has each of its posts and runs once, whatever was left out', () => {
      const { posts, runs } = networkOf(stopping({ 'fittings/bar-2-plus/absent': 'yes' }))
      const ids = [...posts, ...runs].map(({ id }) => id)
      expect(posts.find(({ id }) => id === 'bar-2-plus')!.name).toBe('Load bar, positive, left out')
      expect(new Set(ids).size).toBe(ids.length)
    })
    it('leaves the loads on the battery where the contactor is left out', () => {
      const { posts } = networkOf(stopping({ 'fittings/load-stop/absent': 'yes' }))
      expect(posts.find(({ id }) => id === 'load-stop')).toMatchObject({ kind: 'joint', fitting: null })
    })
  })
  it('bonds two conductors side by side as one of both their sizes', () => {
    const bond = (values: Values): number =>
      networkOf(withValues(goodJob(), values)).runs.find(({ id }) => id === 'bond')!.areaMm2!
    expect(bond({ 'runs/main-lead/areaMm2': 50, 'runs/main-lead/count': 2 })).toBe(95)
    expect(bond({ 'runs/main-lead/areaMm2': 50 })).toBe(35)
  })
  it('buys lugs for the stud that was read, and usual ones elsewhere', () => {
    const lugs = (job: JobDocument) =>
      partsOfWiring(networkOf(job)).filter(({ what }) => what.startsWith('Lug') && what.endsWith('M12'))
    expect(lugs(goodJob())).toEqual([])
    const read = lugs(withValues(goodJob(), { 'fittings/main-switch/stud': 'M12' }))
    expect(read.reduce((sum, { quantity }) => sum + quantity, 0)).toBe(2)
  })
  it('has the shunt of a monitor that the answer fits as new, and rated as its sheet says', () => {
    const found = withValues(goodJob(), { 'use/monitor': 'voltage', 'use/shuntA': null })
    const fitted = (values: Values) => {
      const done = withValues(found, { 'use/monitor': 'shunt', ...values })
      return networkOf(answeredWith(found, done)).posts.find(({ id }) => id === 'shunt')
    }
    expect(fitted({ 'use/shuntA': 350 })).toMatchObject({ state: 'new', fitting: { ratedA: 350 } })
    expect(fitted({})).toMatchObject({ state: 'new', fitting: { isRatingOpen: false } })
  })
  describe('lists thin lines', () => {
    const linesOf = (job: JobDocument, kind: LineKind) =>
      networkOf(job).lines.filter((line) => line.kind === kind)
    it('a running signal to a DC-DC that is told by a wire, fused, and none to one that listens to the voltage', () => {
      const [line, ...others] = linesOf(link({ kind: 'dcdc', signal: 'wire' }), 'run')
      expect(line).toMatchObject({ of: 'links/link-1', fuseA: 3, state: 'found' })
      expect(others).toEqual([])
      expect(linesOf(link({ kind: 'dcdc', signal: 'voltage' }), 'run')).toEqual([])
    })
    it('a running signal to a solenoid, and none to a relay that senses the voltage', () => {
      expect(linesOf(straightJob({ kind: 'solenoid' }), 'run')).toHaveLength(1)
      expect(linesOf(straightJob({ kind: 'vsr' }), 'run')).toEqual([])
    })
    it('a signal wire that the answer runs to a unit that stays is new', () => {
      const found = link({ kind: 'dcdc', signal: 'voltage' })
      const done = link({ kind: 'dcdc', signal: 'wire' })
      expect(linesOf(answeredWith(found, done), 'run')).toMatchObject([{ state: 'new' }])
    })
    it('the sense lead of an external regulator, from the battery that the alternator charges', () => {
      const regulated = (job: JobDocument) =>
        linesOf(withValues(job, { 'alternators/alternator-1/regulator': 'external' }), 'sense').find(
          ({ of }) => of === 'alternators/alternator-1',
        )!.name
      expect(regulated(straightJob({ kind: 'direct' }))).toContain('post of the bank')
      expect(regulated(link({ kind: 'dcdc' }))).toContain('starting battery')
    })
    it('the leads of a monitor where there is a shunt', () => {
      const names = (monitor: string) => linesOf(withValues(goodJob(), { 'use/monitor': monitor }), 'sense')
      expect(names('shunt')).toHaveLength(1)
      expect(names('bms')).toEqual([])
    })
  })
  it('of the canal tug with a DC-DC between keeps the old battery full from the bar, fused at both ends', () => {
    const network = networkOf(withValues(demo('0427'), { 'use/mixed': 'dcdc', 'use/betweenA': 15 }))
    const unit = network.units.find((one) => one.kind === 'dcdc')!
    expect(unit).toMatchObject({ mostA: 15, alternator: null })
    expect(network.units.find(({ id }) => id === 'lead')).toMatchObject({ serves: 'reserve' })
    const ways = new Ways(network)
    expect(ways.fuseOf(run(network, 'lead-dcdc-in-feed'))?.id).toBe('lead-dcdc-in-fuse')
    expect(ways.fuseOf(run(network, 'lead-dcdc-out-feed'))?.id).toBe('lead-fuse')
    const solved = new Solved(network)
    const charging = solved.in(solved.cases.find(({ id }) => id === 'charge-charger-1')!)
    // No more than the unit gives, and nearly that: its cable may lose 3 %.
    expect(charging.amps.get('lead-dcdc-out-feed')).toBeGreaterThan(13.5)
    expect(charging.amps.get('lead-dcdc-out-feed')).toBeLessThan(15.1)
    // Nothing is on the old battery, and nothing flows into it while nothing charges the house.
    for (const id of ['loads', 'rest']) {
      const { amps } = solved.in(solved.cases.find((one) => one.id === id)!)
      expect(amps.get('lead-lead')).toBeCloseTo(0, 3)
    }
  })
  it('of the rescue van counts the return by the chassis', () => {
    const network = networkOf(demo('0421'))
    const body = run(network, 'body-metal')
    expect(body.areaMm2).toBeNull()
    expect(runOhm(body, network.cableC)).toBeCloseTo(0.001 + 0.0002 * 3.5, 9)
  })
  it('of the sidecar outfit is small: no bar, no switch, no shunt', () => {
    const ids = networkOf(demo('0433')).posts.map(({ id }) => id)
    for (const id of ['bar-plus', 'main-switch', 'main-fuse', 'shunt']) expect(ids).not.toContain(id)
  })
  it('keeps hand-set values, whatever else changes', () => {
    const set = withValues(demo('0417'), {
      'runs/load-1-feed/lengthM': 9,
      'runs/load-1-feed/areaMm2': 70,
      'fittings/load-1-fuse/ratedA': 175,
    })
    for (const job of [
      set,
      withValues(set, { 'loads/load-1/amps': 60 }),
      withValues(set, { 'candidate/parallel': 2 }),
    ]) {
      const network = networkOf(job)
      expect(run(network, 'load-1-feed')).toMatchObject({
        lengthM: 9,
        areaMm2: 70,
        lengthKnown: 'set',
        areaKnown: 'set',
      })
      expect(network.posts.find(({ id }) => id === 'load-1-fuse')).toMatchObject({
        set: ['ratedA'],
        fitting: { ratedA: 175 },
      })
    }
  })
  it('splits the bar in two where a fuse stands on a second one: a strap behind the main fuse, as thick as it asks', () => {
    const whole = networkOf(demo('0417'))
    const network = networkOf(withValues(demo('0417'), { 'fittings/panel-fuse/standsOn': 'second' }))
    const ways = new Ways(network)
    expect(run(network, 'panel-stub').from).toBe('bar-2-plus')
    expect(run(network, 'panel-return').to).toBe('bar-2-minus')
    expect(run(network, 'load-1-stub').from).toBe('bar-plus')
    const strap = run(network, 'bar-strap')
    expect(ways.fuseOf(strap)?.id).toBe('main-fuse')
    expect(ways.fuseOf(run(network, 'bar-strap-return'))?.id).toBe('main-fuse')
    const mainA = ways.post('main-fuse')!.fitting!.ratedA!
    expect(runAmpacityA(strap, strap.areaMm2!, strap.count)).toBeGreaterThanOrEqual(mainA)
    expect(ways.post('bar-2-plus')!.fitting!.ratedA).toBeGreaterThanOrEqual(mainA)
    const solved = new Solved(network)
    const amps = solved.in(solved.cases.find(({ id }) => id === 'loads')!).amps
    expect(amps.get('bar-strap')).toBeCloseTo(amps.get('panel-feed')!, 6)
    // Two bars and two straps more, and no other difference.
    expect(network.posts.length).toBe(whole.posts.length + 2)
    expect(network.runs.length).toBe(whole.runs.length + 2)
  })
  it('makes a run thicker where it is longer, and says nothing smaller would do', () => {
    const at = (lengthM: number): number =>
      run(networkOf(withValues(demo('0417'), { 'runs/load-1-feed/lengthM': lengthM })), 'load-1-feed')
        .areaMm2!
    expect(at(1)).toBeLessThan(at(20))
  })
  it('takes two runs side by side where none is large enough', () => {
    const network = networkOf(
      withValues(demo('0430'), { 'inverters/inverter-1/continuousW': 9000, 'candidate/parallel': 4 }),
    )
    expect(run(network, 'inverter-1-feed').count).toBeGreaterThan(1)
  })
})
