import { describe, expect, it } from 'vitest'
import { goodJob, withArray, withMeasured, withValues, long } from '#core/testing'
import { demoJob } from '../../../scripts/bench/demo-jobs'
import { specifiedJob } from '../../../scripts/lib/demo-shelf'
import { runOhm } from '#core/wiring/run-ohm'
import { Diagnosis } from '../diagnosis'
import type { Proof } from '#core/commissioning/predict'
import { unitsOf, type Rig } from '#core/commissioning/rig'
import { testsOf } from '#core/commissioning/tests/index'
import { harmOf } from './fault'
import { allFaults } from './index'

// What each fault does to the readings of one plain job, calculated by hand: what flows, what is lost in it, what
// opens.

const job = withMeasured(goodJob(), 'inverters', { continuousW: 1000, efficiency: 90 })
const { proof } = new Diagnosis(job)
const { proof: underTheSun } = new Diagnosis(withArray({ through: 'own' }, job))

const readingIn = (rig: Rig, id: string, of: Proof): number => {
  // Steady or not: here a fault is seen by itself.
  const test = testsOf(of.bench).find((one) => one.id === id)
  if (!test) throw new Error(`No test ${id}`)
  return of.readings(rig, [test]).get(id)!
}
const soundly = (id: string, of = proof): number => readingIn(of.rig, id, of)
const faulty = (fault: string, at: string, size: number, id: string, of = proof): number => {
  const { change } = allFaults.find((one) => one.id === fault)!
  return readingIn(change(of.rig, at, size), id, of)
}
/** What the charger gives whatever its cable loses, A. */
const chargerA = 30

describe('a fault of a conductor', () => {
  it('that is a poor joint loses its current times its resistance more', () => {
    const more =
      faulty('resistance', 'charger-1-feed', 10, 'drop-charger-1-feed') - soundly('drop-charger-1-feed')
    expect(more).toBeCloseTo(chargerA * 0.01, 6)
  })
  it('of a poor chassis return raises the drop of the currents that return by it', () => {
    const more = faulty('chassis-return', 'body-metal', 20, 'drop-body-metal') - soundly('drop-body-metal')
    expect(more).toBeGreaterThan(0)
    const body = proof.rig.network.runs.find(({ id }) => id === 'body-metal')!
    const flowsA = soundly('drop-body-metal') / runOhm(body, proof.rig.network.cableC)
    expect(more).toBeLessThan(flowsA * 0.02 + 0.001)
  })
  it('that is joined to nothing carries nothing', () => {
    expect(faulty('open-run', 'charger-1-feed', 0, 'charge-amps-charger-1')).toBeCloseTo(0, 3)
    expect(faulty('open-run', 'panel-return', 0, 'draws-panel-feed')).toBeCloseTo(0, 3)
  })
  it.each([
    [25, 'more'],
    [70, 'less'],
  ])('that has %d mm² in place of 50 reads so, and loses %s', (mm2, than) => {
    expect(soundly('size-main-lead')).toBe(50)
    expect(faulty('wrong-size', 'main-lead', mm2, 'size-main-lead')).toBe(mm2)
    const more = faulty('wrong-size', 'main-lead', mm2, 'drop-main-lead') - soundly('drop-main-lead')
    expect(more > 0).toBe(than === 'more')
  })
  it('of 25 mm² in place of 50 doubles the loss of its copper', () => {
    const run = proof.rig.network.runs.find(({ id }) => id === 'main-lead')!
    const copper = soundly('drop-main-lead') / soundly('draws-main-lead') - run.fittingOhm
    const more =
      faulty('wrong-size', 'main-lead', 25, 'drop-main-lead') /
      faulty('wrong-size', 'main-lead', 25, 'draws-main-lead')
    // 0.727 against 0.387 mΩ/m.
    expect(more - run.fittingOhm).toBeCloseTo((copper * 0.727) / 0.387, 6)
  })
})

describe('a fault of a contact', () => {
  it('that is a fuse which is open stops its branch, and is told by the fuse itself', () => {
    expect(faulty('fuse-open', 'panel-fuse', 0, 'draws-panel-feed')).toBeCloseTo(0, 3)
    expect(faulty('fuse-open', 'panel-fuse', 0, 'draws-inverter-1-feed')).toBeGreaterThan(80)
    expect(faulty('fuse-open', 'panel-fuse', 0, 'conducts-panel-fuse')).toBe(0)
    expect(soundly('conducts-panel-fuse')).toBe(1)
  })
  it('that is another fuse reads so', () => {
    expect(faulty('wrong-fuse', 'panel-fuse', 40, 'rating-panel-fuse')).toBe(40)
  })
  it('that is a switch which never closes leaves everything dark', () => {
    expect(faulty('stuck-open', 'main-switch', 0, 'draws-main-lead')).toBeCloseTo(0, 3)
  })
  it('that is a switch which never opens leaves the bar live', () => {
    expect(Math.abs(soundly('off-bar'))).toBeLessThan(0.01)
    expect(faulty('stuck-closed', 'main-switch', 0, 'off-bar')).toBeGreaterThan(13)
  })
})

describe('a fault of a signal', () => {
  it('that is none to a DC-DC leaves it off', () => {
    expect(faulty('no-signal', 'link-1', 0, 'signal-link-1')).toBe(0)
    expect(faulty('no-signal', 'link-1', 0, 'out-amps-link-1')).toBeCloseTo(0, 3)
  })
  it('that is a protection which does not act is seen where it must', () => {
    for (const which of ['discharge-stop', 'warning', 'reset']) {
      expect(soundly(`acts-${which}`)).toBe(1)
      expect(faulty('protection-dead', which, 0, `acts-${which}`)).toBe(0)
    }
  })
  it('that is a sensor which tells nothing lets a cold battery be charged', () => {
    expect(soundly('cold-amps')).toBeCloseTo(0, 3)
    expect(faulty('sensor', 'bank', 0, 'cold-amps')).toBeGreaterThan(1)
  })
})

describe('a fault of a setting', () => {
  it('that is another voltage is held this much higher', () => {
    const higher =
      faulty('wrong-voltage', 'charger-1', 0.3, 'absorb-volts-charger-1') - soundly('absorb-volts-charger-1')
    expect(higher).toBeCloseTo(0.3, 1)
  })
  it('that is a lead profile holds the float too high as well', () => {
    expect(faulty('lead-profile', 'charger-1', 0.3, 'float-volts-charger-1')).toBeGreaterThan(
      soundly('float-volts-charger-1') + 0.1,
    )
  })
  it('that is another limit gives this much', () => {
    expect(faulty('wrong-current', 'charger-1', 15, 'charge-amps-charger-1')).toBeCloseTo(15, 2)
  })
  it('of the monitor is its display', () => {
    expect(faulty('monitor-settings', 'monitor', 100, 'monitor-capacity')).toBe(100)
    expect(faulty('monitor-zero', 'monitor', 0.7, 'monitor-zero')).toBeCloseTo(0.7, 3)
  })
})

describe('parts left in, or joined wrongly', () => {
  it('as a diode takes its drop', () => {
    const more =
      faulty('diode-left-in', 'link-1-out-feed', 0.7, 'drop-link-1-out-feed') -
      soundly('drop-link-1-out-feed')
    expect(more).toBeCloseTo(0.7, 1)
  })
  it('as a jump link makes one voltage of two batteries', () => {
    expect(soundly('parted-starting-1')).toBeCloseTo(0.65, 2)
    expect(Math.abs(faulty('jump-link', 'starting-1', 1, 'parted-starting-1'))).toBeLessThan(0.05)
  })
  it('as a shunt turned round counts the other way', () => {
    expect(faulty('shunt-reversed', 'shunt', 0, 'monitor-loads')).toBeCloseTo(-soundly('monitor-loads'), 3)
  })
  it('as a return before the shunt is not counted', () => {
    const counted = faulty('shunt-bypassed', 'panel-return', 0, 'monitor-loads')
    const left = soundly('monitor-loads') + soundly('draws-panel-feed')
    // Before the shunt it flows by one joint less, and the rest has more volts.
    expect(Math.abs(counted - left)).toBeLessThan(0.3)
  })
  it('as two leads changed over reads below zero', () => {
    expect(faulty('reversed', 'panel', 0, 'polarity-panel')).toBeCloseTo(-soundly('polarity-panel'), 3)
  })
  it('as a draw that was not there flows when all is off', () => {
    expect(faulty('standing-draw', 'bar-plus', 2, 'quiet-amps')).toBeCloseTo(soundly('quiet-amps') + 2, 1)
  })
})

describe('a fault of a battery or a source', () => {
  it('that is a weak pack gives way under load', () => {
    const lower = soundly('left-panel') - faulty('pack-weak', 'bank', 20, 'left-panel')
    expect(lower).toBeGreaterThan(1)
  })
  it('that is a pack which refuses charge takes nothing', () => {
    // What stands by is all that the charger feeds.
    expect(faulty('pack-cold-gated', 'bank', 0, 'charge-amps-charger-1')).toBeCloseTo(
      soundly('quiet-amps'),
      2,
    )
    expect(faulty('pack-cold-gated', 'bank', 0, 'draws-main-lead')).toBeCloseTo(soundly('draws-main-lead'), 6)
  })
  it('that is cells out of balance ends the charge before its end', () => {
    expect(soundly('absorb-amps-charger-1')).toBeGreaterThan(1)
    expect(faulty('out-of-balance', 'bank', 0, 'absorb-amps-charger-1')).toBeLessThan(0.5)
  })
  it('that is failing lead rests lower', () => {
    expect(faulty('lead-failing', 'starting-1', 0.5, 'rested-starting-1')).toBeCloseTo(
      soundly('rested-starting-1') - 0.5,
      3,
    )
  })
  it('that is a weak alternator gives less, and a hot one is hotter', () => {
    expect(faulty('alternator-weak', 'alternator-1', 70, 'cruise-amps-alternator-1')).toBeLessThanOrEqual(
      soundly('cruise-amps-alternator-1'),
    )
    const hotter =
      faulty('alternator-hot', 'alternator-1', 30, 'case-alternator-1') - soundly('case-alternator-1')
    expect(hotter).toBeGreaterThan(10)
  })
  it('of a shaded string reduces its output by this share', () => {
    const id = 'charge-amps-array-1'
    const gave = soundly(id, underTheSun)
    expect(faulty('string-shaded', 'array-1', 50, id, underTheSun)).toBeLessThan(gave)
  })
  it('that is a string turned round shows at its open ends', () => {
    const id = 'panels-array-1'
    expect(soundly(id, underTheSun)).toBeCloseTo(22, 6)
    expect(faulty('string-reversed', 'array-1', 0, id, underTheSun)).toBeLessThan(0)
  })
})

describe('a setting that is wrong', () => {
  it('in the monitor for another shunt shows its share of each current, and its zero as it is', () => {
    expect(faulty('shunt-ratio', 'monitor', 0.5, 'monitor-loads')).toBeCloseTo(
      soundly('monitor-loads') / 2,
      6,
    )
    expect(faulty('shunt-ratio', 'monitor', 0.5, 'monitor-zero')).toBeCloseTo(soundly('monitor-zero') / 2, 6)
  })

  it('of a regulator moves the voltage at cruise, up or down', () => {
    const at = 'cruise-volts-alternator-1'
    expect(faulty('regulator-voltage', 'alternator-1', 0.7, at) - soundly(at)).toBeCloseTo(0.7, 1)
    expect(faulty('regulator-voltage', 'alternator-1', -0.7, at) - soundly(at)).toBeCloseTo(-0.7, 1)
  })
})

describe('a fault that the essential tests look for', () => {
  it('as a corroded plug pin loses its current times its resistance', long, () => {
    const trailer = new Diagnosis(specifiedJob(demoJob('0430')))
    const pin = trailer.causes.find(({ fault }) => fault?.id === 'plug-pin')!
    const id = `drop-${pin.at}`
    const amps = soundly('in-amps-link-1', trailer.proof)
    const more = faulty('plug-pin', pin.at!, 20, id, trailer.proof) - soundly(id, trailer.proof)
    // A DC-DC that gets less voltage takes a little more current for the same power.
    expect(more / (amps * 0.02)).toBeGreaterThan(0.95)
    expect(more / (amps * 0.02)).toBeLessThan(1.1)
    expect(trailer.causes.some(({ id: own }) => own.startsWith('plug-pin@') && own.endsWith('return'))).toBe(
      true,
    )
  })
  it('as a weak starting battery falls further while cranking', () => {
    const id = 'crank-volts-starting-1'
    const battery = unitsOf(proof.rig.network, 'battery').find(({ id: own }) => own === 'starting-1')!
    const lower = soundly(id) - faulty('starting-weak', 'starting-1', 1000 * battery.ohm * 3, id)
    expect(lower).toBeGreaterThan(0.5)
  })
  it('as a battery below its label gives this much of it, and nothing else shows that', long, () => {
    const share = faulty('capacity-low', 'bank', 70, 'capacity-bank') / soundly('capacity-bank')
    expect(share).toBeCloseTo(0.7, 9)
    for (const { id } of proof.tests)
      if (id !== 'capacity-bank') expect(faulty('capacity-low', 'bank', 70, id)).toBe(soundly(id))
  })
  it('as one string of two without its fuse halves the current', () => {
    const array = withArray({ through: 'own', parallel: 2, stringFuses: 'yes' }, job)
    const { proof: two } = new Diagnosis(array)
    expect(soundly('strings-array-1', two)).toBe(1)
    expect(faulty('string-open', 'array-1', 0, 'strings-array-1', two)).toBe(0)
    const share =
      faulty('string-open', 'array-1', 0, 'charge-amps-array-1', two) / soundly('charge-amps-array-1', two)
    expect(share).toBeCloseTo(0.5, 2)
  })
  it('as a sense lead on a post of 0.4 V more holds the battery 0.4 V lower', () => {
    const external = withValues(job, { 'alternators/alternator-1/regulator': 'external' })
    const { proof: sensed } = new Diagnosis(external)
    expect(soundly('sense-alternator-1', sensed)).toBe(0)
    expect(faulty('sense-lead', 'alternator-1', 0.4, 'sense-alternator-1', sensed)).toBeCloseTo(0.4, 9)
    const id = 'cruise-volts-alternator-1'
    expect(faulty('sense-lead', 'alternator-1', 0.4, id, sensed) - soundly(id, sensed)).toBeCloseTo(-0.4, 1)
  })
  it('is found on the way round where an eye or a hand can find it', () => {
    const id = 'walk-round'
    expect(soundly(id)).toBe(1)
    for (const [fault, at, size] of [
      ['wrong-size', 'main-lead', 25],
      ['wrong-fuse', 'panel-fuse', 40],
      ['lead-profile', 'charger-1', 0.5],
      ['monitor-settings', 'monitor', 50],
      ['shunt-bypassed', 'panel-return', 0],
      ['stuck-closed', 'main-switch', 0],
    ] as const)
      expect([fault, faulty(fault, at, size, id)]).toEqual([fault, 0])
    expect(faulty('pack-weak', 'bank', 30, id)).toBe(1)
  })
})

describe('the harm of a hidden fault', () => {
  const harmOfFault = (id: string, at: string, size: number): string =>
    harmOf(
      allFaults.find((one) => one.id === id)!,
      proof.bench,
      at,
      size,
    )
  it('of a joint is fire from 10 W on, by hand', () => {
    // 30 A through 12 mΩ: 10.8 W. Through 10 mΩ: 9 W, and 0.3 V.
    expect(harmOfFault('resistance', 'charger-1-feed', 12)).toBe('fire')
    expect(harmOfFault('resistance', 'charger-1-feed', 10)).toBe('nuisance')
  })
  it('of a fuse or a cable is fire where it protects too little', () => {
    expect(harmOfFault('wrong-fuse', 'panel-fuse', 100)).toBe('fire')
    expect(harmOfFault('wrong-fuse', 'panel-fuse', 10)).toBe('stranded')
    expect(harmOfFault('wrong-size', 'main-lead', 16)).toBe('fire')
    expect(harmOfFault('wrong-size', 'main-lead', 95)).toBe('nuisance')
  })
})

describe('readings that were taken for other faults', () => {
  const named = (readings: readonly (readonly [test: string, value: number])[]): string => {
    const of = new Diagnosis(job)
    const taken = readings.map(([id, value]) => ({ test: of.proof.test(id)!, value }))
    const [first] = of.given(taken).ranking()
    return first!.cause.id
  }

  it('too much voltage at cruise is the regulator, not a weak alternator', long, () => {
    const at = 'cruise-volts-alternator-1'
    expect(named([[at, soundly(at) + 0.7]])).toBe('regulator-voltage@alternator-1')
  })

  it(
    'half of every current in the monitor is its shunt ratio, not a link or a return before the shunt',
    long,
    () => {
      const readings = ['monitor-loads', 'monitor-charge-charger-1', 'monitor-cruise'].map(
        (id) => [id, soundly(id) / 2] as const,
      )
      expect(named(readings)).toBe('shunt-ratio@monitor')
    },
  )
})
