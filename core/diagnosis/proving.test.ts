import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import type { JobDocument } from '#core/job/document'
import { circuitOf, startOf } from '#core/wiring/circuits'
import { solveCircuit } from '#core/circuit/solution'
import { wiredJob } from '#core/assessment/wired'
import { Diagnosis, sureFrom } from './diagnosis'
import { allFaults } from './faults/index'
import { anyJobFrom, goodJob, withValues, type Values, long } from '#core/testing'
import { expectationOf } from '#core/commissioning/expect'
import { soundId } from './cause-ids'
import { causesOf, rigWith } from './hypotheses'
import { Proof } from '#core/commissioning/predict'
import { chanceOf } from '#core/commissioning/chance'
import { drawnRig, withDrawnFault, StandIn } from './instruments'
import { learntFrom, withLearnt } from './learnt'
import { bitsOfReading, mostBits } from './next'
import { movedRig } from '#core/commissioning/parameters'
import { callsOf, firstCallsIn } from './calibration'
import { economical } from './procedure'
import { expectedWords, readingWords } from '#core/commissioning/readings'
import { expectedRows, rankingRows } from './rows'
import { hiddenCause, standInStream } from './stream'
import { caseC } from '#core/commissioning/tests/engine'
import { togetherOf } from './together'
import { demoJob } from '../../scripts/bench/demo-jobs'
import { specifiedJob } from '../../scripts/lib/demo-shelf'

const workboat = new Diagnosis(demoJob('0417'))
const sidecar = new Diagnosis(demoJob('0433'))
const test = (id: string, { proof } = workboat) => proof.test(id)!
const taken = (id: string, value: number, of = workboat) => ({ test: test(id, of), value })
/** What is read where a fault of a size is at a place and everything else is exactly as specified. */
function readingsWith(fault: string, at: string, size: number, tests: readonly string[], of = workboat) {
  const cause = of.causes.find(({ id }) => id === `${fault}@${at}`)!
  const rig = cause.fault!.change(of.proof.rig, at, size)
  const read = of.proof.readings(rig, of.proof.tests)
  return tests.map((id) => taken(id, read.get(id)!, of))
}

describe('the expected reading of a test', () => {
  it('is the result of the job’s network in its case', () => {
    const { proof } = workboat
    const { network } = proof.rig
    const drop = test('drop-charger-1-feed')
    const { volts } = solveCircuit(circuitOf(network, drop.state.at), startOf(network, drop.state.at))
    const [probe] = drop.probes
    if (probe?.kind !== 'volts') throw new Error('a drop is read in volts')
    // All but the little that stands by.
    expect(workboat.expect(drop).value).toBeCloseTo(volts.get(probe.from)! - volts.get(probe.to)!, 4)
  })

  it('of a drop is current times resistance, by hand', () => {
    // 3 m of 16 mm² at 30 A: R20 of the table, warmed to what the shop counts cables at.
    const { value } = workboat.expect(test('drop-charger-1-feed'))
    const run = workboat.proof.rig.network.runs.find(({ id }) => id === 'charger-1-feed')!
    expect(run.areaMm2).toBe(16)
    expect(value / 30 / run.lengthM).toBeGreaterThan(0.00105)
    expect(value / 30 / run.lengthM).toBeLessThan(0.0013)
  })

  it('has a tolerance of two deviations, its instrument in it, wider where more hangs on it', () => {
    const rested = workboat.expect(test('rested-bank'))
    const left = workboat.expect(test('left-load-1'))
    expect(rested.tolerance).toBeGreaterThan(2 * 0.06)
    expect(left.tolerance).toBeGreaterThan(rested.tolerance)
  })

  it('is asked of nothing that was left out: of a switch, of a shunt', long, () => {
    const casesIn = (values: Values): Set<string> =>
      new Set(new Diagnosis(withValues(goodJob(), values)).proof.tests.map(({ state }) => state.id))
    const testsIn = (values: Values): string[] =>
      new Diagnosis(withValues(goodJob(), values)).proof.tests.map(({ id }) => id)
    expect([...casesIn({})]).toContain('switched-off')
    expect([...casesIn({ 'fittings/main-switch/absent': 'yes' })]).not.toContain('switched-off')
    expect(testsIn({})).toContain('monitor-loads')
    expect(testsIn({ 'fittings/shunt/absent': 'yes' })).not.toContain('monitor-loads')
  })

  it('is within its tolerance for 19 sound systems in 20, in every demo job', () => {
    let [within, all] = [0, 0]
    for (const number of ['0417', '0424', '0433']) {
      const of = new Diagnosis(demoJob(number))
      for (let seed = 1; seed <= 12; seed++) {
        const standIn = new StandIn(
          of.proof,
          drawnRig(of.proof, of.proof.rig, chanceOf(seed)),
          chanceOf(seed + 50),
        )
        for (const one of of.proof.tests) {
          all++
          if (of.isWithin({ test: one, value: standIn.read(one) })) within++
        }
      }
    }
    expect(within / all).toBeGreaterThan(0.94)
    expect(within / all).toBeLessThan(0.995)
  })

  it('moves with a parameter by its slope', () => {
    const { proof } = workboat
    const one = test('drop-charger-1-feed')
    const { value, slopes } = proof.expected(one)
    const at = proof.parameters.findIndex((p) => p.kind === 'run' && p.run === 'charger-1-feed')
    const moved = proof.readings(movedRig(proof.rig, proof.parameters[at]!, 1), [one]).get(one.id)!
    expect(moved - value).toBeCloseTo(slopes.by[slopes.at.indexOf(at)]!, 4)
  })

  it(
    'is not offered where its tolerance is wider than any fault, and no clamp goes round the metal of a body',
    long,
    () => {
      const tug = new Diagnosis(specifiedJob(demoJob('0427')))
      const offered = expectedRows(tug).tests
      expect(offered.some(({ test: id }) => id === 'quiet-amps')).toBe(false)
      expect(tug.proof.test('quiet-amps')).toBeDefined()
      for (const { quantity, value, tolerance } of offered)
        if (quantity === 'amps') expect(tolerance).toBeLessThanOrEqual(Math.max(5, 2 * Math.abs(value)))
      const van = new Diagnosis(specifiedJob(demoJob('0421')))
      const metal = van.proof.rig.network.runs.filter(({ areaMm2 }) => areaMm2 === null).map(({ id }) => id)
      expect(metal.length).toBeGreaterThan(0)
      for (const { test: id, run } of expectedRows(van).tests)
        if (id.startsWith('clamp-')) expect(metal).not.toContain(run)
    },
  )

  it('is printed with its case, its posts, its run and its unit', () => {
    const rows = expectedRows(workboat).tests
    expect(rows.length).toBe(workboat.proof.tests.length)
    expect(rows.find((row) => row.test === 'drop-main-lead')).toMatchObject({
      case: 'proved-loads',
      quantity: 'volts',
      from: 'bank-plus',
      to: 'main-fuse',
      run: 'main-lead',
      unit: 'V',
    })
    for (const { value, tolerance } of rows) {
      expect(Number.isFinite(value)).toBe(true)
      expect(tolerance).toBeGreaterThan(0)
    }
  })

  it('is shown with its tolerance, and a print on a part unchanged', () => {
    const q = (value: number, unit: string) => `${value} ${unit}`
    expect(expectedWords(14.05, 0.12, 'volts', 'V', q)).toBe('14.05 ± 0.12 V')
    expect(expectedWords(200, 2, 'size', 'A', q)).toBe('200 A')
    expect(readingWords(16, 'size', 'mm²', q)).toBe('16 mm²')
  })

  it('of the case’s temperature begins at the air around it and settles as the model says', () => {
    const heat = { ratedA: 200, rpm: 4500, airC: 60, riseK: 60, tauMin: 15 }
    expect(caseC(heat, 84, 0)).toBe(60)
    expect(caseC(heat, 84, 1e6)).toBeCloseTo(91.9, 1)
    expect(caseC(heat, 84, 15)).toBeCloseTo(60 + 31.9 * (1 - Math.exp(-1)), 1)
  })
})

describe('any job', () => {
  it(
    'has tests with finite readings and tolerances, and readings that any fault of it leaves finite',
    long,
    () => {
      fc.assert(
        fc.property(anyJobFrom(['0417', '0421', '0427'].map(demoJob)), fc.nat(1000), (job, pick) => {
          const proof = new Proof(job)
          for (const one of proof.tests) {
            const { value, tolerance } = expectationOf(proof, one)
            expect(Number.isFinite(value) && Number.isFinite(tolerance) && tolerance > 0).toBe(true)
          }
          const faults = causesOf(proof).filter(({ fault }) => fault !== null)
          const cause = faults[pick % faults.length]
          if (!cause) return
          const rig = cause.fault!.change(proof.rig, cause.at!, cause.sizes[pick % cause.sizes.length]!)
          for (const value of proof.readings(rig, proof.tests).values())
            expect(Number.isFinite(value)).toBe(true)
        }),
        { numRuns: 40 },
      )
    },
  )
})

describe('the meaning of a wrong reading', () => {
  const rank = (readings: ReturnType<typeof readingsWith>, of = workboat) => of.given(readings).ranking()

  it('is nothing, while every reading is as it must be', long, () => {
    const readings = workboat.expected.map(({ test: one, value }) => ({ test: one, value }))
    expect(rank(readings)[0]!.cause.id).toBe(soundId)
    expect(rank(readings)[0]!.probability).toBeGreaterThan(sureFrom)
  })

  it('finds a poor joint by its drop, and tells its size', () => {
    const [top] = rank(readingsWith('resistance', 'main-feed-1', 6, ['left-load-1', 'drop-main-feed-1']))
    expect(top!.cause.id).toBe('resistance@main-feed-1')
    expect(top!.probability).toBeGreaterThan(sureFrom)
    expect(top!.size).toBeGreaterThan(5)
    expect(top!.size).toBeLessThan(7)
  })

  it('counts readings together: volts that are low everywhere are the bank and not two joints', () => {
    const mains = ['lead', 'feed-1', 'feed-2', 'return-1'].map((run) => `drop-main-${run}`)
    const low = readingsWith('pack-weak', 'bank', 40, ['left-load-1', 'left-panel', ...mains])
    expect(rank(low)[0]!.cause.id).toBe('pack-weak@bank')
  })

  it('tells a fuse from a lug by the fuse itself', () => {
    const at = 'charger-1-fuse'
    const off = readingsWith('fuse-open', at, 0, ['charge-amps-charger-1', 'drop-charger-1-stub'])
    const before = rank(off)
    expect(before[0]!.probability).toBeLessThan(sureFrom)
    const after = rank([...off, taken(`conducts-${at}`, 0)])
    expect(after[0]!.cause.id).toBe(`fuse-open@${at}`)
    expect(after[0]!.probability).toBeGreaterThan(sureFrom)
  })

  it.each([
    ['reversed', 'charger-1', 0, ['polarity-charger-1']],
    ['wrong-fuse', 'panel-fuse', 50, ['rating-panel-fuse']],
    ['standing-draw', 'bar-plus', 2, ['quiet-amps', 'parted-starting-1']],
    ['jump-link', 'starting-1', 3, ['parted-starting-1']],
    ['lead-profile', 'charger-1', 0.6, ['absorb-volts-charger-1', 'float-volts-charger-1']],
    [
      'out-of-balance',
      'bank',
      0,
      ['charge-amps-charger-1', 'absorb-amps-charger-1', 'absorb-volts-charger-1', 'drop-charger-1-feed'],
    ],
    ['sensor', 'bank', 0, ['cold-amps']],
    ['lead-failing', 'starting-1', 0.8, ['rested-starting-1']],
  ] as const)('finds %s at %s', (fault, at, size, tests) => {
    const [top] = rank(readingsWith(fault, at, size, tests))
    expect(top!.cause.id).toBe(`${fault}@${at}`)
  })

  it('finds a shunt the wrong way round, and a return that lands before it', long, () => {
    const bus = new Diagnosis(withShunt(demoJob('0424')))
    const reversed = readingsWith('shunt-reversed', 'shunt', 0, ['monitor-loads', 'draws-main-lead'], bus)
    expect(bus.given(reversed).top().cause.id).toBe('shunt-reversed@shunt')
    const past = bus.causes.find(({ id }) => id === 'shunt-bypassed@inverter-1-return')!
    const bypassed = readingsWith('shunt-bypassed', past.at!, 0, ['monitor-loads', 'draws-main-lead'], bus)
    expect(bus.given(bypassed).top().cause.fault?.id).toBe('shunt-bypassed')
  })

  it('asks for the measurement that tells two causes apart', () => {
    const posterior = workboat.given(readingsWith('resistance', 'main-feed-1', 12, ['left-load-1']))
    const next = workboat.worthNext(posterior)!
    expect(next.bits).toBeGreaterThan(0.1)
    expect(posterior.taken.some((one) => one.test === next.test)).toBe(false)
  })

  it('says so where no cause that is known explains the readings, and is sure of none', () => {
    const rows = rankingRows(workboat, workboat.given([taken('rested-bank', 19), taken('polarity-panel', 3)]))
    expect(rows.explained).toBe(false)
    expect(rows.ranking[0]).toMatchObject({ fault: 'other', at: null, size: null })
    for (const { fault, probability } of rows.ranking)
      if (fault !== 'other') expect(probability).toBeLessThan(0.1)
  })

  it('is a meter that was misread once where all else is as it must be', () => {
    const readings = workboat.essential.tests.map((one) => ({ test: one, value: workboat.expect(one).value }))
    const misread = readings.map((reading) =>
      reading.test.id === 'absorb-battery-charger-1' ? { ...reading, value: 1.44 } : reading,
    )
    expect(rank(misread)[0]!.cause.id).toBe('other')
  })

  it('gives probabilities that add up to one, whatever is read', () => {
    for (const value of [-20, 0, 12.9, 13.3, 400]) {
      const sum = workboat
        .given([taken('rested-bank', value)])
        .probabilities()
        .reduce((all, one) => all + one, 0)
      expect(sum).toBeCloseTo(1, 9)
    }
  })

  it('is the same whichever reading was taken first', () => {
    const readings = readingsWith('resistance', 'load-1-feed', 5, [
      'left-load-1',
      'draws-main-lead',
      'drop-load-1-feed',
    ])
    const one = workboat.given(readings).probabilities()
    const other = workboat.given([...readings].reverse()).probabilities()
    // But for a cause by which a reading may be anything: what it calls such a reading hangs on those before.
    one.forEach((probability, i) => expect(other[i]).toBeCloseTo(probability, 4))
  })
})

describe('a measurement’s worth', () => {
  const at = (cause: number, mean: number, weight = 0.5) => ({ cause, weight, mean, variance: 1 })

  it('is a bit where it tells two even causes apart, and nothing where they read the same', () => {
    expect(bitsOfReading([at(0, 0), at(1, 100)])).toBeCloseTo(1, 3)
    expect(bitsOfReading([at(0, 5), at(1, 5)])).toBeCloseTo(0, 6)
  })
  it('is less the nearer they are', () => {
    const bits = [0.5, 1, 2, 4].map((apart) => bitsOfReading([at(0, 0), at(1, apart)]))
    bits.slice(1).forEach((more, i) => expect(more).toBeGreaterThan(bits[i]!))
  })
  it('is never more than a normal distribution of the same spread would tell, nor than there is to know', () => {
    const cause = fc.record({
      cause: fc.nat(5),
      weight: fc.double({ min: 0.01, max: 1, noNaN: true }),
      mean: fc.double({ min: -20, max: 20, noNaN: true }),
      variance: fc.double({ min: 0.01, max: 9, noNaN: true }),
    })
    fc.assert(
      fc.property(fc.array(cause, { minLength: 1, maxLength: 12 }), (outlook) => {
        // A little for what the sums at a few points are off by.
        expect(bitsOfReading(outlook)).toBeLessThan(mostBits(outlook) + 0.1)
      }),
    )
  })
  it('that is the best is found without looking at all', () => {
    const posterior = workboat.given(readingsWith('resistance', 'main-feed-1', 12, ['left-load-1']))
    expect(workboat.looksWrong(posterior)).toBe(true)
    const open = workboat.proof.tests.filter(({ id }) => id !== 'left-load-1')
    const state = posterior.taken[0]!.test.state.id
    const worth = open.map((one) => {
      const minutes = one.minutes + one.waits + (one.state.id === state ? 0 : one.state.minutes)
      return { id: one.id, aMinute: bitsOfReading(posterior.outlook(one)) / minutes }
    })
    const best = worth.reduce((a, b) => (b.aMinute > a.aMinute ? b : a))
    expect(workboat.worthNext(posterior)!.test.id).toBe(best.id)
  })
  it('uses the expected readings after the earlier ones, by hand for two', () => {
    const { known } = workboat.given([])
    const [a, b] = ['left-load-1', 'left-panel'].map((id) => known.tests.indexOf(test(id)))
    const { means, noise, covariance } = known.hypotheses[0]!
    const value = means[a!]! - 0.01
    const outlook = workboat.given([taken('left-load-1', value)]).outlook(test('left-panel'))
    const common = covariance.row(b!)[a!]!
    const own = covariance.variances[a!]! + noise[a!]!
    const sound = outlook.find(({ cause }) => cause === 0)!
    expect(sound.mean).toBeCloseTo(means[b!]! + (common / own) * (value - means[a!]!), 9)
    expect(sound.variance).toBeCloseTo(covariance.variances[b!]! + noise[b!]! - common ** 2 / own, 9)
  })
  it('does not hang on when it was asked for before', () => {
    const ids = ['left-load-1', 'left-panel', 'draws-main-lead']
    const readings = ids.map((id) => taken(id, workboat.expect(test(id)).value))
    const one = test('drop-main-lead')
    let asked = workboat.given([])
    for (const reading of readings) {
      asked.outlook(one)
      asked = asked.with(reading)
    }
    expect(asked.outlook(one)).toEqual(workboat.given(readings).outlook(one))
  })
  it('counts sizes of one cause as one', () => {
    expect(bitsOfReading([at(0, 0), at(0, 100)])).toBeCloseTo(0, 6)
  })
})

describe('every fault', () => {
  const causes = [workboat, sidecar].flatMap(({ causes: all, proof }) =>
    all.map((cause) => ({ cause, proof })),
  )

  it.each(allFaults.map((fault) => [fault.id, fault] as const))(
    '%s has words, a prior and something to do',
    (_, fault) => {
      expect(fault.title).not.toBe('')
      expect(fault.mend).toMatch(/\.$/)
      expect(fault.prior).toBeGreaterThan(0)
    },
  )

  it('has a circuit that can be solved, at every place and size', long, () => {
    for (const { cause, proof } of causes)
      if (cause.fault)
        for (const size of cause.sizes) {
          const read = proof.readings(cause.fault.change(proof.rig, cause.at!, size), proof.tests)
          for (const value of read.values()) expect(Number.isFinite(value)).toBe(true)
        }
  })

  it('comes to rest where the steps of its circuit are slow to end', long, () => {
    const trailer = new Diagnosis(specifiedJob(demoJob('0430')))
    const { proof, causes: all } = trailer
    for (const [id, seed] of [
      ['open-run@panel-return', 4],
      ['resistance@alternator-1-feed', 15],
    ] as const) {
      const i = all.findIndex((cause) => cause.id === id)
      const chance = chanceOf(100_000 * i + seed + 1)
      const { sizes } = all[i]!
      const size = sizes[Math.floor(chance() * sizes.length)]!
      const rig = drawnRig(proof, rigWith(proof, all[i]!, size), chance)
      for (const value of proof.readings(rig, proof.tests).values()) expect(Number.isFinite(value)).toBe(true)
    }
  })

  it('leaves the sound rig as it is', () => {
    const before = JSON.stringify(workboat.proof.rig)
    for (const { cause, proof } of causes) cause.fault?.change(proof.rig, cause.at!, cause.sizes[0]!)
    expect(JSON.stringify(workboat.proof.rig)).toBe(before)
  })

  it('that no test tells from another is named with it', () => {
    const groups = togetherOf(workboat.given([]).known).map((members) => members.map(({ id }) => id))
    expect(groups).toContainEqual(expect.arrayContaining(['stuck-open@main-switch', 'open-run@main-feed-1']))
    expect(groups.flat()).not.toContain(soundId)
  })
})

describe('a search', () => {
  it('finds most faults of a small job, and seldom calls a sound one faulty', long, () => {
    const { proof, causes } = sidecar
    const groups = togetherOf(sidecar.given([]).known)
    const same = (a: string, b: string) =>
      a === b || groups.some((ids) => [a, b].every((id) => ids.some((member) => member.id === id)))
    let [right, wrong] = [0, 0]
    causes.forEach((cause, i) => {
      if (!cause.fault) return
      for (let seed = 0; seed < 2; seed++) {
        const chance = chanceOf(1000 * i + seed + 1)
        const size = cause.sizes[Math.floor(chance() * cause.sizes.length)]!
        const rig = drawnRig(proof, withDrawnFault(proof, cause, { size, chance }), chance)
        const top = economical(sidecar, new StandIn(proof, rig, chance)).posterior.top()
        if (same(top.cause.id, cause.id)) right++
        else wrong++
      }
    })
    expect(right / (right + wrong)).toBeGreaterThan(0.85)
    let called = 0
    for (let seed = 1; seed <= 20; seed++) {
      const chance = chanceOf(seed)
      const standIn = new StandIn(proof, drawnRig(proof, proof.rig, chance), chance)
      if (economical(sidecar, standIn).posterior.top().cause.id !== soundId) called++
    }
    expect(called).toBeLessThanOrEqual(1)
  })

  it(
    'has true probabilities: of the calls at 80 to 90 %, this many are right, and so above and below',
    long,
    () => {
      const searches = Array.from({ length: 150 }, (_, seed) => callsOf(sidecar, chanceOf(seed + 1)))
      for (const band of [
        [0.6, 0.7],
        [0.8, 0.9],
        [0.9, 1.01],
      ] as const) {
        const calls = firstCallsIn(searches, band)
        const meant = calls.reduce((sum, { probability }) => sum + probability, 0) / calls.length
        const right = calls.filter((call) => call.right).length / calls.length
        // Twice the deviation of a sample of this many.
        const error = 2 * Math.sqrt((meant * (1 - meant)) / calls.length)
        expect(calls.length).toBeGreaterThan(80)
        expect({ band, right, off: Math.abs(right - meant) < error + 0.02 }).toEqual({
          band,
          right,
          off: true,
        })
      }
    },
  )
})

describe('stand-in instruments', () => {
  it('show the same by the same seed, and hide a fault only where they are told to', () => {
    const { proof, causes } = workboat
    const one = test('drop-main-lead')
    const stream = (seed: number, hidden: boolean) => standInStream(proof, causes, one, { seed, hidden })
    expect(stream(5, false)).toEqual(stream(5, false))
    expect(stream(5, false)).not.toEqual(stream(6, false))
    expect(hiddenCause(causes, 5).cause.fault).not.toBeNull()
  })
  it('warm a case over its half hour', () => {
    const { proof, causes } = workboat
    const stream = standInStream(proof, causes, test('case-alternator-1'), { seed: 3, hidden: false })
    expect(stream.at(-1)!.t).toBe(1800)
    expect(stream.at(-1)!.value).toBeGreaterThan(stream[0]!.value + 5)
  })
})

describe('the values learnt from readings', () => {
  it('move a resistance to fit its drop, and leave values without a reading', () => {
    const { proof } = workboat
    const drop = test('drop-charger-1-stub')
    const amps = taken('charge-amps-charger-1', workboat.expect(test('charge-amps-charger-1')).value)
    const more = { test: drop, value: workboat.expect(drop).value * 1.15 }
    const learnt = learntFrom(proof, [more, amps])
    const stub = learnt.find(({ of }) => of === 'charger-1-stub')!
    expect(stub.after / stub.before).toBeGreaterThan(1.1)
    expect(stub.after / stub.before).toBeLessThan(1.2)
    expect(learnt.some(({ of }) => of === 'panel-feed')).toBe(false)
  })
  it('replace the resistance of the run from then on: for its expected drop, and for losses', () => {
    const { proof } = workboat
    const drop = test('drop-charger-1-stub')
    const read = 6 * workboat.expect(drop).value
    const amps = taken('charge-amps-charger-1', workboat.expect(test('charge-amps-charger-1')).value)
    const learnt = learntFrom(proof, [{ test: drop, value: read }, amps])
    const job = withLearnt(demoJob('0417'), learnt)
    const again = new Diagnosis(job)
    const expected = again.expect(again.proof.test(drop.id)!)
    expect(expected.value).toBeGreaterThan(0.85 * read)
    expect(expected.tolerance).toBeLessThan(0.2 * read)
    const lostV = (one: JobDocument): number =>
      wiredJob(one, {}).runs.find(({ id }) => id === 'charger-1-stub')!.lostV
    expect(lostV(job)).toBeGreaterThan(4 * lostV(demoJob('0417')))
  })
  it('is nothing without readings', () => {
    expect(learntFrom(workboat.proof, [])).toEqual([])
  })
})

function withShunt(job: JobDocument): JobDocument {
  return { ...job, use: { ...job.use, monitor: { value: 'shunt', how: 'measured' } } }
}

beforeAll(() => {
  workboat.given([])
  sidecar.given([])
})
