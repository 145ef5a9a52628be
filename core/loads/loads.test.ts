import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import {
  readCaseCsv,
  readLoadsCsv,
  readReadingsCsv,
  writeLoadsCsv,
  writeReadingsCsv,
} from '#core/formats/loads-csv'
import { emptyJob, type JobDocument } from '#core/job/document'
import { partKinds } from '#core/job/fields'
import { goodJob, withMeasured, withValues } from '#core/testing'
import { auditLoads } from './audit'
import { loadsFrom, StepDetector, type Reading, type CurrentStep } from './detect'
import { judgeSteps } from './judge'
import { likelyLoads, loadLibrary } from './library'
import { chanceVehicle, standInStream, standInVehicle } from './stand-in'
import { takeLoads } from './take'

const stepsOf = (readings: readonly Reading[]): CurrentStep[] => {
  const detector = new StepDetector()
  return readings.flatMap((reading) => [...detector.push(reading)])
}
const stream = (load: (t: number) => number, seconds: number): Reading[] =>
  Array.from({ length: seconds * 4 }, (_, i) => ({
    t: i / 4,
    amps: -load(i / 4) + 0.05 * Math.sin(i * 12.9898),
    volts: 12.7,
  }))

describe('steps in the current', () => {
  it('are found in generated streams with known truth: at least 95 % of 0.5 A or more, at most 2 % wrong', () => {
    const all = { there: 0, found: 0, reported: 0, wrong: 0 }
    for (let seed = 1; seed <= 30; seed++) {
      const { readings, truth } = chanceVehicle(seed, { noiseA: 0.15 })
      const { there, found, reported, wrong } = judgeSteps(stepsOf(readings), truth)
      all.there += there
      all.found += found
      all.reported += reported
      all.wrong += wrong
    }
    expect(all.there).toBeGreaterThan(1500)
    expect(all.found / all.there).toBeGreaterThanOrEqual(0.95)
    expect(all.wrong / all.reported).toBeLessThanOrEqual(0.02)
  })

  it('have the running current, not the inrush, and tell the inrush apart', () => {
    const [step, ...more] = stepsOf(stream((t) => (t < 10 ? 1 : 5 + 15 * Math.exp(-(t - 10) / 0.5)), 30))
    expect(more).toEqual([])
    expect(step!.t).toBeCloseTo(10, 0)
    expect(Math.abs(step!.deltaA - 4)).toBeLessThan(0.1)
    expect(step!.peakA).toBeCloseTo(19, 0)
  })

  it('two within two seconds are parted', () => {
    const deltas = stepsOf(stream((t) => (t < 10 ? 0 : t < 11.5 ? 3 : 8), 30)).map((s) => s.deltaA.toFixed(0))
    expect(deltas).toEqual(['3', '5'])
  })

  it('slow drift and a single spike are none', () => {
    expect(stepsOf(stream((t) => 2 + 0.01 * t, 200))).toEqual([])
    expect(stepsOf(stream((t) => (t === 20 ? 9 : 2), 60))).toEqual([])
  })

  it('go on over a gap in the stream', () => {
    const readings = stream((t) => (t < 20 ? 1 : t < 40 ? 4 : 1), 60)
    const cut = readings.filter((r) => r.t < 25 || r.t > 33)
    expect(stepsOf(cut).map((s) => Math.round(s.deltaA))).toEqual([3, -3])
  })

  it('a check that is shown nothing, or nonsense, says so', () => {
    const { truth } = chanceVehicle(3)
    expect(judgeSteps([], truth)).toMatchObject({ found: 0, reported: 0 })
    const nonsense: CurrentStep[] = [{ t: 1, deltaA: 99, peakA: 99, levelA: 99 }]
    expect(judgeSteps(nonsense, truth)).toMatchObject({ found: 0, wrong: 1 })
  })
})

describe('loads from steps', () => {
  it('of the stand-in vehicle are the things it carries, the fridge as one that cycles', () => {
    const found = loadsFrom(stepsOf(standInStream().readings))
    const carried = standInVehicle.filter((thing) => thing.on > 0)
    expect(found).toHaveLength(carried.length)
    for (const thing of carried)
      expect(
        found.some((load) => Math.abs(load.amps - thing.amps) <= Math.max(0.25, 0.05 * thing.amps)),
      ).toBe(true)
    const [fridge] = found.filter((load) => load.kind === 'cycling')
    expect(fridge!.runs).toHaveLength(3)
    expect(fridge!.duty).toBeCloseTo(37, -1)
    expect(fridge!.surge).toBeCloseTo(3.2, 0)
  })

  it('that still run have no end, and one off ends the nearest in size', () => {
    const step = (t: number, deltaA: number): CurrentStep => ({ t, deltaA, peakA: deltaA, levelA: 0 })
    const found = loadsFrom([step(1, 2), step(5, 8), step(9, -2.1), step(12, 3)])
    expect(found.map((load) => [Math.round(load.amps), load.runs[0]!.off])).toEqual([
      [2, 9],
      [8, null],
      [3, null],
    ])
    expect(loadsFrom([step(1, -4)])).toEqual([])
  })

  it('the same seed gives the same stream', () => expect(standInStream(5)).toEqual(standInStream(5)))
})

describe('the library of loads', () => {
  it('holds values the catalogue accepts', () => {
    const fields = partKinds.loads.fields
    for (const { name, values } of loadLibrary) {
      const draw = values.amps ?? values.watts!
      expect({
        name,
        ok:
          draw > 0 &&
          values.hours > 0 &&
          values.hours <= 24 &&
          Object.hasOwn(fields.period.options, values.period),
      }).toEqual({ name, ok: true })
    }
  })
  it('proposes loads of the same draw, and cycling ones for a current that cycles', () => {
    expect(likelyLoads(4.4, true)[0]!.name).toBe('Fridge, compressor')
    expect(likelyLoads(90, false).map((load) => load.name)).toContain('Anchor windlass')
  })
})

describe('the audit', () => {
  const boat = JSON.parse(
    readFileSync(new URL('../../demo/jobs/0417-oyster-workboat.json', import.meta.url), 'utf8'),
  ) as JobDocument

  it('sums by part of day to the whole, in the hand count of the workboat', () => {
    const audit = auditLoads(boat)
    // 85 × 0.6 + 6 × 8 + 4 × 5 + 12 × 1.5 + 8 × 0.5 + 5 × 24 × 35 % = 183 Ah
    expect(audit.listedAh).toBeCloseTo(183, 6)
    expect(Object.values(audit.byPart).reduce((a, b) => a + b, 0)).toBeCloseTo(183, 6)
    expect(audit.byPart.morning).toBeCloseTo(51 + 20 + (48 + 18 + 4 + 42) / 4, 6)
    expect(audit.essentialAh).toBeCloseTo(52, 6)
    expect(audit).toMatchObject({ dailyFrom: 'loads', atOnceA: 96 })
    expect(audit.surgeA).toBeCloseTo(96 + 85 * 1.5, 6)
  })

  it('the checks use a monitor’s count, and the list stays next to it', () => {
    const counted = withValues(boat, { 'use/dailyAh': 150 })
    expect(auditLoads(counted)).toMatchObject({ dailyAh: 150, dailyFrom: 'counted' })
    expect(auditLoads(counted).listedAh).toBeCloseTo(183, 6)
  })

  it('an AC load is counted through the inverter, and an idle inverter for its hours', () => {
    let job = withMeasured(withValues(goodJob(), { 'use/dailyAh': null }), 'inverters', {
      continuousW: 1000,
      efficiency: 90,
      idleW: 13.16,
      hoursOn: 10,
    })
    job = withMeasured(job, 'loads', { supply: 'ac', watts: 592.2, hours: 2, period: 'evening' })
    const audit = auditLoads(job)
    expect(audit.loads[0]!.amps).toBeCloseTo(50, 6)
    expect(audit.idleAh).toBeCloseTo(10, 6)
    expect(audit.byPart.evening).toBeCloseTo(102.5, 6)
  })

  it('without any load there is nothing to count, and unknown values are named', () => {
    expect(auditLoads(withValues(goodJob(), { 'use/dailyAh': null })).dailyAh).toBeNull()
    expect(
      auditLoads(withMeasured(goodJob(), 'loads', { supply: 'dc', amps: null, hours: 3 })).loads[0]!.open,
    ).toEqual(['loads/load-1/amps'])
  })

  it('goes out as a table and comes in the same', () => {
    const { loads, problems } = readLoadsCsv(writeLoadsCsv(boat))
    expect(problems).toEqual([])
    expect(loads[0]).toEqual({
      name: 'Deck winch',
      values: { supply: 'dc', amps: 85, hours: 0.6, period: 'morning', surge: 2.5 },
    })
    expect(loads).toHaveLength(6)
  })

  it('a bad row is named by line and column, the good ones are given', () => {
    const { loads, problems } = readLoadsCsv(
      'name;supply;amps (A);hours (h)\nLamp;dc;2,5;3\nFridge;gas;4;24\n;dc;1;1\nPump;dc;-3;1',
    )
    expect(loads.map((load) => load.name)).toEqual(['Lamp'])
    expect(problems.map((p) => `${p.line} ${p.column}`)).toEqual(['3 supply', '4 name', '5 amps'])
  })
})

describe('a table of loads from a sheet of one’s own', () => {
  const sheet = 'NAME;Draw (A);Hours a day (h);Remark\nLamp;2,5;3;warm\nFridge;4;24;\n'

  it('may head its columns with their labels; a column that is unknown is named and left out', () => {
    expect(readLoadsCsv(sheet)).toEqual({
      count: 2,
      problems: [{ line: 1, column: 'Remark', reason: 'is not a column of this table, and is left out' }],
      loads: [
        { name: 'Lamp', values: { amps: 2.5, hours: 3 } },
        { name: 'Fridge', values: { amps: 4, hours: 24 } },
      ],
    })
  })
  it('is refused where nothing heads the names', () =>
    expect(readLoadsCsv('Consumer,Power\nLamp,3\n')).toMatchObject({
      count: 0,
      loads: [],
      problems: [
        { column: 'Consumer' },
        { column: 'Power' },
        { column: 'name', reason: 'is missing in the header' },
      ],
    }))
  it('taken twice doubles nothing, and corrected it corrects', () => {
    const once = takeLoads(emptyJob('1'), readLoadsCsv(sheet).loads)
    expect(once).toMatchObject({ added: 2, changed: 0, same: 0, left: 0 })
    const twice = takeLoads(once.job, readLoadsCsv(sheet).loads)
    expect(twice).toMatchObject({ added: 0, changed: 0, same: 2, left: 0 })
    expect(twice.job).toEqual(once.job)
    const corrected = takeLoads(once.job, readLoadsCsv(sheet.replace('2,5', '3')).loads)
    expect(corrected).toMatchObject({ added: 0, changed: 1, same: 1 })
    expect(corrected.job.loads['load-1']).toMatchObject({
      name: 'Lamp',
      amps: { value: 3 },
      hours: { value: 3 },
    })
  })
  it('with two of a name fills both, and stops where a job is full', () => {
    const lamps = [1, 2].map((amps) => ({ name: 'Lamp', values: { amps } }))
    const two = takeLoads(emptyJob('1'), lamps)
    expect(two.added).toBe(2)
    expect(takeLoads(two.job, lamps)).toMatchObject({ added: 0, same: 2 })
    const many = Array.from({ length: 120 }, (_, i) => ({ name: `Load ${i}`, values: { amps: 1 } }))
    expect(takeLoads(two.job, many)).toMatchObject({ added: 98, left: 22 })
  })
})

describe('a recording of a shunt', () => {
  it('walks a file unchanged', () => {
    const readings = standInStream().readings.slice(0, 200)
    expect(readReadingsCsv(writeReadingsCsv(readings))).toEqual({ readings, problems: [] })
  })
  it('is refused where time stands still or a cell is empty, by line', () => {
    const { problems, readings } = readReadingsCsv(
      'time (s),current (A),voltage (V)\n0,1,12.6\n0,1,12.6\n2,,12.6\nx,1,12\n4,1,12.5\n',
    )
    expect(readings.map((r) => r.t)).toEqual([0, 4])
    expect(problems.map((p) => `${p.line} ${p.column} ${p.reason}`)).toEqual([
      '3 time is not later than the row before',
      '4 current is empty',
      '5 time Not a number of s',
    ])
  })
})

describe('a log of an alternator’s case', () => {
  it('is read whole, and an empty cell is named', () => {
    expect(readCaseCsv('amps (A),rpm (rpm),minutes (min),celsius (°C)\n60,4000,10,82\n').readings).toEqual([
      { amps: 60, rpm: 4000, minutes: 10, celsius: 82 },
    ])
    expect(readCaseCsv('amps (A),rpm (rpm),minutes (min),celsius (°C)\n60,,10,82\n').problems).toEqual([
      { line: 2, column: 'rpm', reason: 'is empty' },
    ])
  })
})
