import { readFileSync } from 'node:fs'
import { eventLines, eventWords, type SimEvent } from './events'
import { Lead } from './model/lead'
import { Lfp } from './model/lfp'
import { mostLoadA, type Plant } from './plant'
import { beginsAt, runIds, usualInputs } from './run-kinds'
import { carryOut, runNow } from './runs'
import { Simulation } from './simulation'
import { csvParse } from 'd3-dsv'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { metric } from '#core/units/display'
import { emptyJob, withNewPart, type JobDocument } from '#core/job/document'
import {
  caseLimitC,
  fitHeat,
  hotOutputA,
  loadAtCaseA,
  minutesToLimit,
  steadyCaseC,
  usualHeat,
  type CaseReading,
} from '#core/physics/alternator'
import {
  copettiChargeEfficiency,
  copettiChargeV,
  copettiDischargeV,
  copettiGassingV,
  leadLeakA,
} from '#core/physics/lead'
import { openCircuitV, resistanceFactor } from '#core/physics/lfp'
import { evenly, withValues } from '#core/testing'
import {
  alternator,
  inputs,
  lead,
  lfp,
  none,
  plain,
  quiet,
  relay,
  stages,
  side,
  starboard,
  linked,
  mains,
} from './simulation.cases'
import { plantOf } from './plant-of-job'
import { inputsOfJob } from './inputs'
import { sharingOver, shareOf } from './sharing'
import { seriesCsv } from '#core/formats/series'
import { driveTraces } from './traces'
import { readVoltageLog } from '#core/formats/voltage-log'

const demoJob = (name: string): JobDocument =>
  JSON.parse(readFileSync(new URL(`../../demo/jobs/${name}.json`, import.meta.url), 'utf8')) as JobDocument
const workboat = demoJob('0417-oyster-workboat')

describe('published points', () => {
  it('Copetti’s curves', () => {
    expect(copettiDischargeV(10, 0.5, 100, 25)).toBeCloseTo(
      2.025 - 0.1 * (4 / (1 + 10 ** 1.3) + 0.27 / 0.5 ** 1.5 + 0.02),
      9,
    )
    expect(copettiDischargeV(10, 0.5, 100, 25)).toBeCloseTo(1.9275, 3)
    // 0.7 % more of the drop for each degree below 25 °C: 17.5 % at 0 °C.
    expect(copettiDischargeV(10, 0.5, 100, 0)).toBeCloseTo(2.025 - 1.175 * (2.025 - 1.9275), 3)
    expect(copettiChargeV(10, 0.5, 100, 25)).toBeCloseTo(2.2667, 3)
    expect(copettiGassingV(10, 100, 25)).toBeCloseTo(2.4278, 3)
    expect(copettiChargeEfficiency(1, 0.5)).toBeCloseTo(0.99875, 4)
    expect(copettiChargeEfficiency(1, 1)).toBe(0)
  })

  it('the lead battery of a run follows them to a millivolt, is one rising curve, and turns round', () => {
    fc.assert(
      fc.property(evenly(0.05, 0.97), evenly(-80, 60), (soc, amps) => {
        const battery = new Lead(lead, soc, 25)
        const v = battery.voltsAt(amps)
        const exact =
          6 * (amps >= 0 ? copettiChargeV(amps, soc, 100, 25) : copettiDischargeV(-amps, soc, 100, 25))
        return (
          (Math.abs(amps) < 0.3 || Math.abs(v - exact) < 0.002) &&
          battery.voltsAt(amps + 0.1) > v &&
          Math.abs(battery.ampsAt(v) - amps) < 0.01
        )
      }),
      { numRuns: 400 },
    )
  })

  it('the anchor of ISO 8854: the label at 6000 rpm, cold', () =>
    expect(hotOutputA(100, 6000, 1)).toBeCloseTo(96.4, 1))
  it('resistance of LFP doubles about every 25 degrees of cold', () =>
    expect(
      [resistanceFactor(25), resistanceFactor(0), resistanceFactor(-20)].map((f) => Number(f.toFixed(2))),
    ).toEqual([1, 2.15, 4.44]))
})

describe('closed forms', () => {
  it('a constant current is a ramp: 30 A for an hour is 15 % of 200 Ah', () => {
    const { totals } = runNow('mains-night', mains(), { ...inputs, days: 1 / 24, mainsH: 24, mainsFrom: 0 })
    expect(totals.endSoc - 0.2).toBeCloseTo((30 * 0.995) / 200, 4)
  })

  it('a generator feeds the chargers for its hours, by its power: 2 h of half of 30 A', () => {
    const plant = { ...mains(), generatorShare: 0.5 }
    const { totals } = runNow('driving-day', plant, { ...inputs, driveH: 0, mainsH: 0, generatorH: 2 })
    expect(totals.mainsAh).toBeCloseTo(30, 1)
    const without = runNow('driving-day', plant, { ...inputs, driveH: 0, mainsH: 0, generatorH: 0 })
    expect(without.totals.mainsAh).toBe(0)
  })

  it('two resistive batteries share by their resistances, and one takes the current that the other gives', () => {
    const other: Plant = { ...plain, sides: [], dcA: Array.from({ length: 24 }, () => 60) }
    const simulation = new Simulation(other, { soc: 0.6, tempC: 25 })
    simulation.advance(1, quiet)
    expect(simulation.lfp!.amps).toBeCloseTo(-60, 2)
    expect(simulation.houseV).toBeCloseTo(openCircuitV(0.6, 12) - 60 * 0.006, 3)
  })

  it('a held voltage into a straight piece of the curve falls off exponentially', () => {
    // Between 70 and 80 % the curve rises 0.02 V over 20 Ah: τ = R·Ah/ΔV = 0.011 Ω × 20 Ah ÷ 0.02 V = 11 h.
    const simulation = new Simulation(mains({ maxA: 500, absorptionV: 13.4, absorptionH: 99, tailA: 0 }), {
      soc: 0.7,
      tempC: 25,
    })
    const amps: number[] = []
    for (const seconds of [1, 3599]) {
      simulation.advance(seconds, { ...quiet, mains: true })
      amps.push(simulation.lfp!.amps)
    }
    expect(simulation.lfp!.soc).toBeLessThan(0.8)
    const tauH = (0.011 * 0.1 * 200 * 0.995 ** -1) / 0.02
    expect(amps[1]! / amps[0]!).toBeCloseTo(Math.exp(-1 / tauH), 2)
  })

  it('an alternator case warms as a first-order step, to the figure of the formula', () => {
    const under = (amps: number, rpm: number): number => steadyCaseC(amps, 200, rpm, 60, usualHeat)
    expect(under(84, 4500)).toBeCloseTo(91.9, 1)
    expect(under(120, 4500)).toBeCloseTo(106.5, 1)
    expect(under(hotOutputA(200, 1800, 0.85), 1800)).toBeCloseTo(97.75, 2)
    expect(minutesToLimit(60, under(120, 4500), caseLimitC, usualHeat)).toBeCloseTo(29.5, 1)
    expect(minutesToLimit(60, 95, caseLimitC, usualHeat)).toBe(Infinity)
  })

  it('the load at which a case settles is the steady temperature turned round', () => {
    for (const [amps, rpm] of [
      [30, 1800],
      [84, 4500],
      [120, 6000],
    ] as const) {
      const settlesC = steadyCaseC(amps, 200, rpm, 40, usualHeat)
      expect(loadAtCaseA(settlesC, 200, rpm, 40, usualHeat)).toBeCloseTo(amps, 6)
    }
    expect(loadAtCaseA(60, 200, 4500, 60, usualHeat)).toBe(0)
  })

  it('a maker’s own resting curve takes the place of the usual one', () => {
    const battery = new Lfp(
      {
        ...lfp,
        curve: [
          [0, 2.6],
          [0.5, 3.25],
          [1, 3.4],
        ],
      },
      0.75,
      25,
      false,
    )
    expect(battery.restV).toBeCloseTo(4 * 3.325, 6)
    const typed = withValues(workboat, {
      'candidate/restingCurve': [
        { percent: 100, volts: 3.4 },
        { percent: 0, volts: 2.6 },
      ],
    })
    expect(plantOf(typed, {}, 'new').lfp!.curve).toEqual([
      [0, 2.6],
      [1, 3.4],
    ])
    expect(
      plantOf(
        withValues(workboat, {
          'candidate/restingCurve': [
            { percent: 0, volts: 3.4 },
            { percent: 100, volts: 2.6 },
          ],
        }),
        {},
        'new',
      ).lfp!.curve,
    ).toBeNull()
  })

  it('a full battery held by a stiff source takes less and less and never alternates, whatever its size and the step', () => {
    for (const [ah, dt] of [
      [10, 20],
      [100, 60],
      [200, 10],
      [400, 60],
    ] as const) {
      const simulation = new Simulation(
        {
          ...mains({ maxA: 500, absorptionV: 14.4, absorptionH: 99, tailA: 0 }),
          lfp: { ...lfp, ah, ohm: 1.2 / ah },
        },
        { soc: 0.97, tempC: 25 },
      )
      let last = Infinity
      for (let i = 0; i < 400; i++) {
        simulation.advance(dt, { ...quiet, mains: true })
        expect(simulation.lfp!.amps).toBeLessThanOrEqual(last + 1e-3)
        last = simulation.lfp!.amps
      }
      expect(simulation.lfp!.soc).toBeGreaterThan(0.999)
      expect(simulation.lfp!.soc).toBeLessThanOrEqual(1)
      expect(last).toBeLessThan(0.01 * ah)
    }
  })

  it('cells in a place that cools itself follow both time constants', () => {
    const place = { fromC: 30, towardsC: 0, followsS: 3600 }
    const [inOne, inMany] = [new Lfp(lfp, 0.5, 30, false), new Lfp(lfp, 0.5, 30, false)]
    inOne.prepare(7200, 0.5, place)
    inOne.settle(inOne.restV, 7200, 0.5, place)
    for (let i = 0; i < 7200; i++) {
      const now = { ...place, fromC: 30 * Math.exp(-i / 3600) }
      inMany.prepare(1, 0.5, now)
      inMany.settle(inMany.restV, 1, 0.5, now)
      inMany.accept(1, 0.5)
    }
    expect(inOne.endTempC).toBeCloseTo(inMany.tempC, 6)
  })

  it('a warm battery in a cold place cools exponentially', () => {
    const battery = new Lfp(lfp, 0.5, 30, false)
    const place = { fromC: 10, towardsC: 10, followsS: 3600 }
    battery.prepare(36_000, 0.5, place)
    battery.settle(battery.restV, 36_000, 0.5, place)
    battery.accept(36_000, 0.5)
    expect(battery.tempC).toBeCloseTo(10 + 20 * Math.exp(-36_000 / (24_000 * 1)), 3)
  })
})

describe('readings of the case', () => {
  const truth = { riseK: 95, tauMin: 11 }
  const reading = (amps: number, minutes: number): CaseReading => ({
    amps,
    rpm: 4000,
    minutes,
    celsius: 40 + (steadyCaseC(amps, 120, 4000, 40, truth) - 40) * (1 - Math.exp(-minutes / truth.tauMin)),
  })

  it('give back rise and time constant, with the residual', () => {
    const fit = fitHeat([reading(60, 5), reading(60, 10), reading(60, 20), reading(80, 30)], 120, 40)!
    expect(fit.heat.riseK).toBeCloseTo(95, 0)
    expect(fit.heat.tauMin).toBeCloseTo(11, 0)
    expect(fit.residualK).toBeLessThan(0.1)
  })
  it('two fit both as well', () => {
    const fit = fitHeat([reading(60, 5), reading(60, 20)], 120, 40)!
    expect(fit).toMatchObject({ tauFitted: true })
    expect(fit.heat.riseK).toBeCloseTo(95, 0)
    expect(fit.heat.tauMin).toBeCloseTo(11, 0)
  })
  it('a single one fits the rise alone', () => {
    const fit = fitHeat([reading(60, 200)], 120, 40)!
    expect(fit).toMatchObject({ tauFitted: false, heat: { tauMin: 15 } })
    expect(fit.heat.riseK).toBeCloseTo(95, 0)
  })
  it('noise shows in the residual, and none fit nothing', () => {
    const noisy = [5, 10, 15, 20, 30].map((minutes, i) => {
      const r = reading(70, minutes)
      return { ...r, celsius: r.celsius + (i % 2 ? 3 : -3) }
    })
    expect(fitHeat(noisy, 120, 40)!.residualK).toBeGreaterThan(1.5)
    expect(fitHeat([], 120, 40)).toBeNull()
    expect(fitHeat([{ amps: 50, rpm: 0, minutes: 3, celsius: 50 }], 120, 40)).toBeNull()
  })
})

describe('lead and lithium on one bus', () => {
  it('sums to the current brought or drawn, and agrees with a step of a run', () => {
    for (const amps of [-40, 0, 40])
      for (const row of sharingOver(lfp, lead, amps)) expect(row.lfpA + row.leadA).toBeCloseTo(amps, 3)
    const simulation = new Simulation(
      { ...plain, sides: [], houseLead: lead, dcA: Array.from({ length: 24 }, () => 20) },
      { soc: 0.5, tempC: 25, leadSoc: 0.9 },
    )
    simulation.advance(1, quiet)
    expect(shareOf(lfp, lead, 0.5, -20).lfpA).toBeCloseTo(simulation.lfp!.amps, 1)
  })
  it('the lithium works first; nearly empty, the lead helps', () => {
    const [full, low] = [shareOf(lfp, lead, 0.8, -20), shareOf(lfp, lead, 0.02, -20)]
    expect(full.lfpA).toBeLessThan(-19.5)
    expect(low.leadA).toBeLessThan(full.leadA)
  })
  it('past its charge stop the lithium is off and the lead takes it all', () => {
    const stopped = { ...lfp, stops: { chargeV: 14, dischargeV: 12 } }
    expect(shareOf(stopped, lead, 0.998, 90)).toMatchObject({ off: true, lfpA: 0 })
    expect(shareOf(stopped, lead, 0.5, 20).off).toBe(false)
  })
})

describe('installers’ experience', () => {
  it('a straight relay on a 200 A machine: the acceptance, the rise to the limit and the minute; a 30 A DC-DC stays under; a duty-cycling relay saw-tooths', () => {
    const straight = runNow('driving-day', linked(relay), inputs)
    expect(straight.totals.alternatorLimitMin).toBeGreaterThan(5)
    expect(straight.totals.alternatorLimitMin).toBeLessThan(40)
    expect(Math.max(...straight.series.values.engineA!)).toBeGreaterThan(85)
    const limited = runNow(
      'driving-day',
      linked({
        kind: 'dcdc',
        ohm: 0.005,
        stages,
        efficiency: 0.9,
        lowestV: 11.5,
        wire: true,
        backFeed: false,
      }),
      inputs,
    )
    expect(limited.totals.alternatorLimitMin).toBeNull()
    expect(limited.totals.alternatorPeakC!).toBeLessThan(caseLimitC)
    const duty = runNow(
      'driving-day',
      linked({ kind: 'duty', ohm: 0.005, opensAboveA: 80, sensesS: 10, offS: 60 }),
      inputs,
    )
    const engine = duty.series.values.engineA!
    let turns = 0
    for (let i = 1; i < 200; i++) if (engine[i]! > 60 !== engine[i - 1]! > 60) turns++
    expect(turns).toBeGreaterThan(10)
    expect(duty.totals.alternatorPeakC!).toBeLessThan(straight.totals.alternatorPeakC!)
  })

  describe('a DC-DC on an alternator too weak for it', () => {
    const onWeak = (wire: boolean) => {
      const link = {
        kind: 'dcdc',
        ohm: 0.005,
        stages,
        efficiency: 0.9,
        lowestV: 11.5,
        wire,
        backFeed: false,
      } as const
      const weak = { ...starboard.alternator!, ratedA: 45, vehicleA: 25 }
      return runNow('driving-day', linked(link, { alternator: weak }), { ...inputs, driveH: 2 })
    }

    it('stops and starts a minute after its input is too low or high enough', () => {
      const turns = onWeak(true).events.flatMap((e) => (e.kind === 'dcdc' ? [e] : []))
      expect(turns.length).toBeGreaterThan(20)
      for (const [i, { t }] of turns.slice(1).entries()) expect(t - turns[i]!.t).toBeGreaterThan(59.9)
    })
    it('runs half of the time where it starts by the voltage', () => {
      const { engineAh } = onWeak(false).totals
      expect(engineAh / (stages.maxA * 2)).toBeGreaterThan(0.45)
      expect(engineAh / (stages.maxA * 2)).toBeLessThan(0.55)
    })
  })

  it('a relay that never opens: the house battery runs into the starting side all night, and it is counted', () => {
    const night = runNow('driving-day', linked(relay, { standbyA: 0.3 }), { ...inputs, days: 1, driveH: 3 })
    expect(night.events.filter((e) => e.kind === 'relay' && !e.closed)).toEqual([])
    expect(night.totals.backAh).toBeGreaterThan(5)
    const part = runNow('driving-day', linked({ ...relay, opensV: 13.9, closesV: 14.1 }, { standbyA: 0.3 }), {
      ...inputs,
      days: 1,
      driveH: 3,
    })
    expect(part.totals.backAh).toBeLessThan(0.1)
  })

  it('a starting battery discharged by loads with the key off is reported at half its charge', () => {
    const parked = linked({ kind: 'none' }, { standbyA: 1 })
    const { events } = runNow('standing-still', parked, { ...inputs, soc: 1, days: 4, driveH: 0 })
    const [low, ...others] = events.filter((e) => e.kind === 'start-low')
    expect(others).toEqual([])
    // 90 % to 50 % of its capacity at an ampere.
    const ah = parked.sides[0]!.startLead!.c10
    expect(low!.t / 3600 / ah).toBeCloseTo(0.4, 1)
    expect(eventWords(low!, metric)).toContain('half charge')
  })

  it('minutes until the limit are minutes of driving: the night between two short drives does not count', () => {
    // Full on the first morning, so that nothing warms; well down by the second.
    const thirsty = { ...linked(relay), dcA: Array.from({ length: 24 }, () => 7) }
    const { totals, events } = runNow('driving-day', thirsty, { ...inputs, soc: 1, days: 2, driveH: 1 })
    const over = events.find((e) => e.kind === 'alternator')!
    expect(over.t).toBeGreaterThan(86_400)
    expect(totals.alternatorLimitMin).toBeCloseTo(60 + (over.t - 86_400) / 60, 6)
  })

  it('equalising at 15.5 V opens the BMS in the middle of it, again and again', () => {
    const { events } = runNow('driving-day', mains({ absorptionV: 15.5 }), {
      ...inputs,
      soc: 0.9,
      days: 0.5,
      driveH: 0,
      mainsH: 24,
      mainsFrom: 0,
    })
    expect(events.filter((e) => e.kind === 'charge-gate' && !e.open).length).toBeGreaterThan(0)
  })

  it('a frozen morning: nothing is charged until the cells are warm; a heater shortens it and is paid for', () => {
    const cold = { ...inputs, coldC: -18, warmC: -14, days: 0.5 }
    const charger = mains()
    const refused = runNow('cold-week', charger, { ...cold, mainsH: 24, mainsFrom: 0, driveH: 0 })
    expect(refused.totals.coldRefusedH).toBeCloseTo(12, 1)
    expect(refused.totals.mainsAh).toBeLessThan(0.5)
    expect(refused.events.filter((e) => e.kind === 'refused').map((e) => eventWords(e, metric))).toEqual([
      'Mains would charge for 12 h, but the cells are too cold: −18 °C',
    ])
    const heated = runNow(
      'cold-week',
      { ...charger, lfp: { ...lfp, heater: { watts: 100, startC: 5 } } },
      { ...cold, mainsH: 24, mainsFrom: 0, driveH: 0 },
    )
    expect(heated.totals.coldRefusedH).toBeLessThan(8)
    expect(heated.totals.mainsAh).toBeGreaterThan(30)
    expect(heated.totals.heaterWh).toBeGreaterThan(100)
  })

  it('a hybrid bank: the lithium works first, the lead carries on when the discharge stop takes it off', () => {
    const hybrid: Plant = {
      ...plain,
      sides: [],
      houseLead: lead,
      dcA: Array.from({ length: 24 }, () => 12),
      lfp: { ...lfp, ah: 100, stops: { chargeV: 14, dischargeV: 12 } },
    }
    const { events, totals, series } = runNow('standing-still', hybrid, {
      ...inputs,
      soc: 1,
      days: 1,
      driveH: 0,
    })
    expect(series.values.lfpA![4]!).toBeLessThan(-9)
    expect(Math.abs(series.values.leadA![4]!)).toBeLessThan(3)
    expect(events.some((e) => e.kind === 'stop' || e.kind === 'cut-out') || totals.endSoc < 0.05).toBe(true)
  })

  it('a weak lead battery in a hybrid bank costs the lithium its share a day', () => {
    const joined = (health: number): Plant => ({
      ...plain,
      sides: [],
      houseLead: { ...lead, health, ownA: leadLeakA(100, health) },
    })
    const drained = (health: number): number =>
      runNow('driving-day', joined(health), { ...inputs, soc: 0.8, days: 4, driveH: 0 }).totals.leadLostAh / 4
    expect(drained(1)).toBeCloseTo(0.2, 2)
    expect(drained(0.4)).toBeCloseTo(100 * (0.002 + 0.03 * 0.36), 2)
    const losing = (ownA: number) =>
      runNow(
        'driving-day',
        { ...joined(1), houseLead: { ...lead, ownA } },
        { ...inputs, soc: 0.8, days: 8, driveH: 0 },
      )
    const [well, weak] = [losing(leadLeakA(100, 1)), losing(leadLeakA(100, 0.4))]
    expect(weak.totals.endSoc).toBeLessThan(well.totals.endSoc)
  })

  it('an external regulator goes to float once the battery takes little, and folds back as the case nears its limit', () => {
    const external = linked(
      { kind: 'closed', ohm: 0.002 },
      { alternator: { ...alternator, regulator: 'external', floatV: 13.5, foldsBack: true } },
    )
    const { series, totals } = runNow('driving-day', external, { ...inputs, soc: 0.9, driveH: 5 })
    const late = series.t.findIndex((t) => t > 4 * 3600)
    expect(series.values.houseV![late]!).toBeLessThan(13.8)
    expect(totals.alternatorPeakC!).toBeLessThanOrEqual(caseLimitC + 0.5)
  })

  it('a DC-DC that gives a little back keeps the starting battery up while parked', () => {
    const parked = (backFeed: boolean) =>
      runNow(
        'standing-still',
        {
          ...mains(),
          ...side({
            standbyA: 0.2,
            link: { kind: 'dcdc', ohm: 0.005, stages, efficiency: 0.9, lowestV: 11.5, wire: true, backFeed },
          }),
        },
        { ...inputs, soc: 0.95, days: 6, driveH: 0, mainsH: 24, mainsFrom: 0 },
      )
    const [kept, left] = [parked(true), parked(false)]
    expect(kept.series.values.startSoc!.at(-1)!).toBeGreaterThan(left.series.values.startSoc!.at(-1)! + 5)
    // Small batteries rise far for two amperes: it eases off before it lifts them over what it holds.
    expect(Math.max(...kept.series.values.startV!)).toBeLessThan(13.5)
    expect(kept.totals.imbalance).toBeLessThan(1e-3)
  })

  it('another source runs its hours from ten in the morning, past midnight where they are many', () => {
    const run = (hours: number) =>
      runNow(
        'driving-day',
        { ...plain, sides: [], sources: [{ name: 'shaft', amps: 5, volts: 14.4, hours }] },
        { ...inputs, days: 1, driveH: 0 },
      ).totals.sourceAh
    expect([6, 14, 20, 24].map(run).map(Math.round)).toEqual([30, 70, 100, 120])
    expect(run(6.31)).toBeCloseTo(6.31 * 5, 3)
  })
  it('a battery that is empty takes the lights with it, and the hour is told', () => {
    const { totals, events } = runNow(
      'driving-day',
      { ...plain, sides: [], dcA: Array.from({ length: 24 }, () => 20) },
      { ...inputs, soc: 0.2, days: 0.5, driveH: 0 },
    )
    expect(totals.darkAfterH).toBeCloseTo(2, 0)
    expect(events.map((e) => e.kind)).toContain('dark')
    expect(totals.unservedAh).toBeGreaterThan(100)
  })
})

describe('a run', () => {
  it('is drawn as it went where something jumps: an engine that stops gives no more', () => {
    const bus = demoJob('0424-library-bus')
    const { series } = runNow('driving-day', plantOf(bus, {}, 'old'), inputsOfJob(bus, 'driving-day'))
    const amps = series.values.engineA!
    const last = amps.findLastIndex((value) => value > 20)
    const first = amps.findIndex((value) => value > 20)
    expect(amps.slice(first, last).filter((value) => value < 1)).toEqual([])
  })
  it('reports its progress, can be left at any point, and is the same twice', () => {
    const going = carryOut('standing-still', plantOf(workboat, {}, 'new'), {
      ...inputsOfJob(workboat, 'standing-still'),
      days: 300,
      loads: false,
    })
    const first = going.next()
    expect(first.done).toBe(false)
    expect(first.value).toBeGreaterThan(0)
    expect(first.value).toBeLessThan(0.1)
    expect(runNow('driving-day', plantOf(workboat, {}, 'new'), inputsOfJob(workboat, 'driving-day'))).toEqual(
      runNow('driving-day', plantOf(workboat, {}, 'new'), inputsOfJob(workboat, 'driving-day')),
    )
  })

  it('keeps its peaks when it is thinned, and stays small', () => {
    const year = runNow('lay-up', plain, { ...usualInputs('lay-up', inputs), days: 200 })
    expect(year.series.t.length).toBeLessThanOrEqual(1600)
    // Each day has its own points: one ends where the day does.
    expect(
      Array.from({ length: 200 }, (_, day) => (day + 1) * 86_400).filter(
        (end) => !year.series.t.includes(end),
      ),
    ).toEqual([])
    const drive = runNow('driving-day', linked(relay), inputs)
    expect(Math.max(...drive.series.values.alternatorC!)).toBeCloseTo(drive.totals.alternatorPeakC!, 2)
  })

  it('of an empty job, or one with only unknowns, gives words and no crash', () => {
    const empty = plantOf(emptyJob('1'), {}, 'new')
    expect(empty.assumed.length).toBeGreaterThan(3)
    const unknown = withNewPart(
      withNewPart(withNewPart(withNewPart(emptyJob('2'), 'chargers').job, 'alternators').job, 'solar').job,
      'inverters',
    ).job
    for (const job of [emptyJob('1'), unknown]) {
      for (const id of runIds) {
        const { totals, assumed } = runNow(id, plantOf(job, {}, 'new'), { ...inputsOfJob(job, id), days: 1 })
        expect(
          Object.values({ ...totals, machines: null }).every(
            (value) => value === null || Number.isFinite(value),
          ),
        ).toBe(true)
        expect(assumed.some((words) => words.includes('unknown'))).toBe(true)
      }
    }
  })
})

describe('the heaviest hour of the loads', () => {
  it('counts inverter, its losses and its own draw, at the voltage of the bus', () => {
    const loaded: Plant = {
      ...plain,
      dcA: none.map((_, h) => (h === 20 ? 4 : 1)),
      acW: none.map((_, h) => (h === 20 ? 216 : 0)),
      idleW: none.map(() => 12),
    }
    expect(mostLoadA(loaded)).toBeCloseTo(4 + (216 / 0.9 + 12) / 12)
    expect(mostLoadA({ ...loaded, lfp: { ...lfp, nominalV: 24 } })).toBeCloseTo(4 + (216 / 0.9 + 12) / 24)
    expect(mostLoadA({ ...loaded, lfp: null, houseLead: { ...lead, cells: 12 } })).toBeCloseTo(
      4 + (216 / 0.9 + 12) / 24,
    )
  })
})

describe('the series of runs as CSV', () => {
  it('come one system below the other, with an empty cell for a missing channel', () => {
    const hour = { ...inputs, days: 1 / 24 }
    const runs = [
      runNow('driving-day', linked({ kind: 'closed', ohm: 0.005 }), hour),
      runNow('driving-day', mains(), { ...hour, loads: false }),
    ]
    const rows = csvParse(seriesCsv(runs, ['as found', 'on mains, alone']))
    expect(rows).toHaveLength(runs[0]!.series.t.length + runs[1]!.series.t.length)
    expect(rows.columns).toEqual(
      expect.arrayContaining(['system', 'time (s)', 'soc (%)', 'alternatorC (°C)', 'engineThere']),
    )
    expect(rows.columns).not.toContain('leadSoc (%)')
    const [first, last] = [rows[0]!, rows.at(-1)!]
    expect([first.system, Number(first['time (s)']), Number(first['alternatorC (°C)'])]).toEqual([
      'as found',
      runs[0]!.series.t[0],
      runs[0]!.series.values.alternatorC![0],
    ])
    expect([last.system, Number(last['time (s)']), last['alternatorC (°C)'], last.engineThere]).toEqual([
      'on mains, alone',
      3600,
      '',
      '0',
    ])
  })
})

describe('a log of the voltage on a drive', () => {
  it('becomes minutes at volts in the order driven', () => {
    const rows = Array.from({ length: 121 }, (_, i) => `${i * 10},${i < 60 ? 14.4 + (i % 2) * 0.05 : 12.6}`)
    const { trace, problems } = readVoltageLog(['time (s),voltage (V)', ...rows].join('\n'))
    expect(problems).toEqual([])
    expect(trace).toEqual([
      { minutes: 10, volts: 14.43 },
      { minutes: 10, volts: 12.6 },
    ])
  })
  it('with a time that stands still or an empty cell is refused by its line', () => {
    expect(
      readVoltageLog('time (s),voltage (V)\n0,14\n0,14\n5,\n').problems.map((p) => `${p.line} ${p.column}`),
    ).toEqual(['3 time', '4 voltage'])
  })
  it('moves the voltage to the minute, though that is no whole part of an hour', () => {
    const trace = [
      { minutes: 34, volts: 12.6 },
      { minutes: 18, volts: 14.4 },
      { minutes: 8, volts: 15.1 },
    ]
    const machine = { ...alternator, regulator: 'computer', trace } as const
    const { events } = runNow('driving-day', linked(relay, { alternator: machine }), inputs)
    const closed = events.find((event) => event.kind === 'relay' && event.closed)!
    const driven = closed.t / 3600 - (inputs.driveFrom - beginsAt)
    expect(driven * 60).toBeCloseTo(34, 0)
  })
  it('changes the output of a computer-controlled alternator', () => {
    const swings = runNow(
      'driving-day',
      linked(
        { kind: 'closed', ohm: 0.005 },
        { alternator: { ...alternator, regulator: 'computer', trace: driveTraces.town.trace } },
      ),
      inputs,
    )
    const engine = swings.series.values.engineA!
    expect(Math.max(...engine)).toBeGreaterThan(60)
    expect(
      engine.slice(0, 300).filter((a, i) => i > 0 && a < 1 && engine[i - 1]! > 20).length,
    ).toBeGreaterThan(5)
  })
})

describe('the list of events', () => {
  const relayAt = (t: number, side = 'a'): SimEvent => ({
    kind: 'relay',
    contact: 'relay',
    closed: t % 2 === 0,
    volts: 13,
    t,
    side,
  })
  const gateAt = (t: number): SimEvent => ({ kind: 'heater', on: true, t })

  it('shows a relay that chatters as one line, and other events in between as their own', () => {
    const events = [0, 100, 200, 300, 400, 500].map((t) => relayAt(t))
    expect(eventLines([...events.slice(0, 3), gateAt(250), ...events.slice(3)])).toEqual([
      { event: relayAt(0), repeats: 5, untilS: 500 },
      { event: gateAt(250), repeats: 0, untilS: 250 },
    ])
  })
  it('shows a few changes one by one', () => {
    const events = [0, 100, 200, 300].map((t) => relayAt(t))
    expect(eventLines(events).map(({ event, repeats }) => [event.t, repeats])).toEqual([
      [0, 0],
      [100, 0],
      [200, 0],
      [300, 0],
    ])
  })
  it('keeps two sides apart, and events more than ten minutes later', () => {
    const one = [0, 1, 2, 3, 4].map((t) => relayAt(t))
    const other = [0, 1, 2, 3, 4].map((t) => relayAt(t, 'b'))
    const later = [605, 606, 607, 608, 609].map((t) => relayAt(t))
    const lines = eventLines([...one, ...other, ...later].sort((a, b) => a.t - b.t))
    expect(lines.map(({ event, repeats, untilS }) => [event.t, event.side, repeats, untilS])).toEqual([
      [0, 'a', 4, 4],
      [0, 'b', 4, 4],
      [605, 'a', 4, 609],
    ])
  })
})
