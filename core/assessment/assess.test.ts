import { metric } from '#core/units/display'
import { writerIn } from '#core/units/format'
import fc from 'fast-check'
import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { emptyJob, withField, withPart, withoutPart, type JobDocument } from '#core/job/document'
import { partKinds, type PartKind } from '#core/job/fields'
import { assessed, evenly, goodJob, straightJob, withMeasured, withValues, long } from '#core/testing'
import { shortcomingsOf } from '#core/compare/shortcomings'
import { findingsOf } from './assess'
import { missingValues } from './finding-words'
import { unsolvable } from './unsolvable'
import { Reads } from '#core/system/reads'
import { drawLanes } from '#core/compare/instruments'
import { applyRemedy, canTry, remedyLabel } from '#core/remedies/catalogue'
import { factsOf } from '#core/system/system'
import { isWorse, verdicts, worst } from '#core/system/verdict'

const q = writerIn(metric)
const folder = new URL('../../demo/jobs/', import.meta.url)
const demo = (start: string): JobDocument =>
  JSON.parse(
    readFileSync(
      new URL(
        readdirSync(folder).find((name) => name.startsWith(start))!,
        folder,
      ),
      'utf8',
    ),
  ) as JobDocument
const verdictOf = (job: JobDocument, key: string) => assessed(job).checks.find((c) => c.key === key)?.verdict

describe('verdicts', () => {
  it('order from Suits to Does not suit', () => {
    expect(worst(['suits', 'measure-first', 'suits-once-changed'])).toBe('measure-first')
    expect(worst(['does-not-suit', ...verdicts])).toBe('does-not-suit')
    expect(worst([])).toBe('suits')
    expect(isWorse('measure-first', 'suits-once-changed')).toBe(true)
  })
})

describe('the workboat', () => {
  const job = demo('0417')
  it('has its equalise stage and its isolator caught, with the numbers', () => {
    const { verdict, reason } = assessed(job)
    expect(verdict).toBe('suits-once-changed')
    expect(reason).toContain('equalises at 15.5 V; the battery allows 14.8 V')
    expect(reason).toContain('The diode isolator drops 0.7 V. The battery gets 13.67 V and needs 14.2 V')
  })

  it('suits on equalise once it is said to be off, and asks for one change fewer', () => {
    const off = withField(job, 'chargers/charger-1/equaliseStage', { value: 'off', how: 'measured' })
    expect(verdictOf(job, 'charger.equalise@chargers/charger-1')).toBe('suits-once-changed')
    expect(verdictOf(off, 'charger.equalise@chargers/charger-1')).toBe('suits')
    expect(assessed(off).changes.length).toBe(assessed(job).changes.length - 1)
  })
})

describe('values at the edges of their fields', () => {
  it('a starting battery of no health is checked, without a broken number', () => {
    for (const health of [0, Number.MIN_VALUE]) {
      const { checks } = assessed(
        withField(demo('0417'), 'startingBatteries/starting-1/health', { value: health, how: 'measured' }),
      )
      for (const { summary, formula } of checks) expect(`${summary} ${formula}`).not.toMatch(/NaN|Infinity/)
    }
  })
  it('names the values to check if there is no solution', () => {
    const facts = factsOf(withField(demo('0417'), 'place/coldestC', { value: -60, how: 'measured' }))
    const { verdict, summary, asks } = unsolvable(facts, new Reads(facts.slots))
    expect(verdict).toBe('measure-first')
    expect(summary()).toMatch(/cannot be calculated from these values: .*−60 °C/)
    expect(asks!.map(({ path }) => path)).toContain('place/coldestC')
  })
})

describe('the rescue van', () => {
  const job = demo('0421')
  it('fails on relay and on alternator, for two reasons', () => {
    const failing = assessed(job).checks.filter((c) => c.verdict === 'does-not-suit')
    expect(failing.map((c) => c.id)).toEqual(['link.vsr-never-opens', 'alternator.computer-controlled'])
    expect(new Set(failing.map((c) => c.why)).size).toBe(2)
  })

  it('has charging at −18 °C caught on every path', () => {
    const cold = assessed(job).checks.filter((c) => c.id === 'cold.charge-cut')
    expect(cold.map((c) => [c.lane, c.verdict])).toEqual([
      ['chargers/charger-1', 'suits-once-changed'],
      ['links/link-1', 'suits-once-changed'],
    ])
    expect(cold[0]!.summary).toContain('−18 °C')
  })

  it('is never asked for one regulator voltage: a computer moves it', () => {
    const cleared = assessed(withField(job, 'alternators/alternator-1/regulatorV', { value: null }))
    expect(cleared.measureNext).toEqual(assessed(job).measureNext)
    expect(cleared.checks.some((c) => c.id === 'alternator.voltage')).toBe(false)
  })
})

describe('the workboat without its regulator voltage', () => {
  const cleared = assessed(withField(demo('0417'), 'alternators/alternator-1/regulatorV', { value: null }))
  it('asks for it first, and only where it decides', () => {
    const open = cleared.checks.filter((c) => c.verdict === 'measure-first').map((c) => c.id)
    expect(open.toSorted()).toEqual([
      'alternator.acceptance',
      'alternator.heat',
      'alternator.voltage',
      'battery.autonomy',
      'link.diode',
    ])
    expect(cleared.measureNext[0]).toMatchObject({ path: 'alternators/alternator-1/regulatorV' })
    expect(cleared.measureNext[0]!.settles).toHaveLength(5)
    expect(cleared.checks.find((c) => c.id === 'charger.equalise')!.verdict).toBe('suits-once-changed')
  })
})

describe('the library bus', () => {
  it('is checked as 24 V chassis and 12 V house', () => {
    const { checks, verdict } = assessed(demo('0424'))
    expect(verdict).toBe('measure-first')
    expect(checks.find((c) => c.id === 'dcdc.voltages')).toMatchObject({
      verdict: 'suits',
      formula: expect.stringContaining('alternator 24 V, bank 12 V') as string,
    })
    expect(checks.find((c) => c.id === 'dcdc.output')!.compared[0].value).toBeCloseTo(22.7, 1)
  })

  it('does not take the word of a charger that chooses its profile by itself', () => {
    const job = demo('0424')
    expect(job.chargers['charger-1']!.absorptionV!.value).toBe(14.4)
    expect(verdictOf(job, 'charger.absorption@chargers/charger-1')).toBe('measure-first')
    const measured = withField(job, 'chargers/charger-1/absorptionV', { value: 14.4, how: 'measured' })
    expect(verdictOf(measured, 'charger.absorption@chargers/charger-1')).toBe('suits')
  })
})

describe('the canal tug', () => {
  const job = demo('0427')
  it('is a hybrid bank by the owner’s wish, names its missing parts, and keeps every charger', () => {
    const { verdict, changes, lanes, overrides } = assessed(job)
    expect(verdict).toBe('suits-once-changed')
    expect(changes.map((c) => c.id)).toEqual(['mixed.conditions'])
    expect(lanes.map((l) => [l.id, l.verdict])).toEqual([
      ['chargers/charger-1', 'suits'],
      ['solar/array-1', 'suits'],
      ['sources/source-1', 'suits'],
    ])
    expect(overrides).toEqual({ mixedSchool: 'hybrid' })
  })
  it('does not suit under the shop’s own school, which parts lead and lithium', () => {
    const { verdict, decidedBy } = assessed({ ...job, rules: {} })
    expect([verdict, decidedBy]).toEqual(['does-not-suit', 'mixed.school@candidate'])
  })
})

describe('the theatre trailer', () => {
  const job = demo('0430')
  it('asks more of its inverter than the battery’s protection gives, by how much and for how long', () => {
    const { verdict, reason, decidedBy } = assessed(job)
    expect([verdict, decidedBy]).toEqual(['does-not-suit', 'battery.discharge@candidate'])
    expect(reason).toContain(
      'The loads draw up to 433 A. The battery can deliver 100 A, so it falls 333 A short. At that current it would last 11 min.',
    )
  })
  it('is held by its cable and plug, which the stack names', () => {
    const [, tow] = drawLanes(job, {}, assessed(job))
    expect(tow!.stack.rows.map((r) => r.label)).toContain('plug')
  })
})

describe('the sidecar outfit', () => {
  const job = demo('0433')
  it('has its recondition stage caught, is checked as a starter battery, and speaks of lay-up', () => {
    const { verdict, reason, checks } = assessed(job)
    expect(verdict).toBe('does-not-suit')
    expect(reason).toContain('Workshop charger equalises at 15.8 V')
    const ids = checks.map((c) => c.id)
    expect(ids).toEqual(expect.arrayContaining(['battery.starter-rated', 'cold.layup']))
    for (const id of ['battery.cranking', 'battery.monitor', 'battery.autonomy'])
      expect(ids).not.toContain(id)
    expect(checks.find((c) => c.id === 'cold.layup')!.summary).toContain('31.2 weeks')
  })
})

describe('a 24 V house bank of two 12 V batteries in series', () => {
  const job = withValues(goodJob(), {
    'houseBank/nominalV': '24',
    'candidate/series': 2,
    'place/depthMm': 510,
    'chargers/charger-1/absorptionV': 28.8,
    'chargers/charger-1/floatV': 27,
    'links/link-1/outputV': '24',
    'links/link-1/absorptionV': 28.8,
    'links/link-1/ratedA': 15,
  })

  it('is checked at twice the voltages, by a 12 to 24 V unit', () => {
    expect(assessed(job)).toMatchObject({ verdict: 'suits' })
    expect(
      verdictOf(
        withValues(job, { 'chargers/charger-1/absorptionV': 14.4 }),
        'charger.absorption@chargers/charger-1',
      ),
    ).toBe('does-not-suit')
    expect(verdictOf(withValues(job, { 'links/link-1/outputV': '12' }), 'dcdc.voltages@links/link-1')).toBe(
      'does-not-suit',
    )
  })

  it('has its unknowns and its ruler at twice the voltages', () => {
    const open = withValues(job, { 'chargers/charger-1/absorptionV': null })
    const { ruler } = drawLanes(open, {}, assessed(open))[0]!
    expect([ruler.from, ruler.to, ...ruler.window.map((v) => v.toFixed(1)), ruler.absoluteV]).toEqual([
      24,
      32,
      '28.4',
      '29.2',
      29.6,
    ])
    expect(ruler.marks.find((m) => m.label === 'absorb')).toMatchObject({
      low: 27.6,
      high: 30,
      unknown: true,
    })
  })
})

describe('unknowns', () => {
  it('say which values give which verdict, with the edge between', () => {
    const job = withValues(goodJob(), { 'chargers/charger-1/absorptionV': null })
    const { deciding } = assessed(job).checks.find(
      (c) => c.id === 'charger.absorption' && c.on === 'chargers/charger-1',
    )!
    expect(deciding).toHaveLength(1)
    expect(deciding[0]!.bands.map((b) => b.verdict)).toEqual(['suits', 'does-not-suit'])
    expect(deciding[0]!.bands[0]!.to).toBeCloseTo(14.6, 2)
    expect(deciding[0]!.settles).toBe(1)
  })

  it('that two together decide settle less than one that decides alone', () => {
    const job = withValues(goodJob(), { 'place/coldestC': null, 'candidate/coldCut': null })
    const { measureNext } = assessed(job)
    expect(measureNext.map((m) => m.path)).toEqual(['place/coldestC', 'candidate/coldCut'])
    expect(measureNext[1]!.settles).toEqual([])
  })

  it('are ordered by verdicts settled', () => {
    const job = withValues(straightJob({ kind: 'solenoid' }), {
      'alternators/alternator-1/regulatorV': null,
      'chargers/charger-1/floatV': null,
    })
    const counts = assessed(job).measureNext.map((m) => m.settles.length)
    expect(counts).toEqual(counts.toSorted((a, b) => b - a))
    expect(counts[0]).toBeGreaterThan(1)
  })

  it('make an empty job Measure first, with words', () => {
    const { verdict, reason } = assessed(emptyJob('1'))
    expect(verdict).toBe('measure-first')
    expect(reason).toContain('No charging source')
  })
})

describe('readings of an alternator’s case', () => {
  it('are checked with the rating that stands next to them, whatever it was before', () => {
    const readings = [
      { amps: 60, rpm: 4000, minutes: 30, celsius: 82 },
      { amps: 80, rpm: 4500, minutes: 60, celsius: 92 },
    ]
    const rated = (amps: number): JobDocument =>
      withValues(straightJob({ closesV: 13.3, opensV: 12.8 }), {
        'alternators/alternator-1/ratedA': amps,
        'alternators/alternator-1/temperatureReadings': readings,
      })
    const heatOf = (job: JobDocument) =>
      assessed(job).checks.find((c) => c.id === 'alternator.heat')!.compared
    heatOf(rated(120))
    expect(heatOf(rated(60))).toEqual(heatOf(JSON.parse(JSON.stringify(rated(60))) as JobDocument))
    expect(heatOf(rated(60))).not.toEqual(heatOf(rated(120)))
  })
})

describe('a check that applies only where two unknowns have certain values together', () => {
  it('is shown as open, and not left out', () => {
    const job = withValues(demo('0417'), { 'links/link-1/kind': null })
    const findings = findingsOf(factsOf(job)).map(({ id, on, verdict }) => `${id}@${on} ${verdict}`)
    expect(findings).toContain('charger.range@links/link-1 measure-first')
    expect(assessed(job, {}, { quick: true }).checks.map(({ key, verdict }) => `${key} ${verdict}`)).toEqual(
      findings,
    )
  })
})

describe('shortcomings', () => {
  it.each(['0417', '0421', '0424', '0427', '0430', '0433'])(
    'of job %s are those of its assessment',
    (number) => {
      const job = demo(number)
      const whole = assessed(job)
      expect(shortcomingsOf(factsOf(job), {})).toEqual({
        verdict: whole.verdict,
        headline: whole.headline,
        against: whole.checks
          .filter(({ verdict }) => verdict !== 'suits')
          .map(({ key, verdict, title, summary, deciding: { length } }) => ({
            key,
            verdict,
            words: length > 0 ? missingValues(title, length) : summary,
          })),
      })
    },
  )
})

describe('any job', () => {
  const fieldsToClear = fc.subarray(
    Object.keys(partKinds).flatMap((kind) =>
      Object.keys((partKinds[kind as keyof typeof partKinds] as PartKind).fields).map(
        (name) => [kind, name] as const,
      ),
    ),
    { maxLength: 12 },
  )
  const start = fc.constantFrom(
    ...['0417', '0421', '0424', '0427', '0430', '0433'].map(demo),
    goodJob(),
    straightJob({ kind: 'diode', dropV: 0.6 }),
  )

  const cleared = (job: JobDocument, fields: readonly (readonly [string, string])[]): JobDocument =>
    fields.reduce((next, [kind, name]) => {
      const many = (partKinds[kind as keyof typeof partKinds] as PartKind).many
      const paths = many ? Object.keys(next[kind as 'chargers']).map((id) => `${kind}/${id}`) : [kind]
      return paths.reduce(
        (j, path) => withPart(j, path, (part) => ({ ...part, [name]: { value: null } })),
        next,
      )
    }, job)

  it('with values taken out is still checked, and never better than Measure first allows', () => {
    fc.assert(
      fc.property(start, fieldsToClear, (job, fields) => {
        const result = assessed(cleared(job, fields), {}, { quick: true })
        expect(verdicts).toContain(result.verdict)
        for (const c of result.checks) {
          expect(c.deciding.length > 0).toBe(c.verdict === 'measure-first')
          expect(`${c.formula}${c.summary}`).not.toMatch(/NaN|Infinity|undefined/)
        }
        expect(drawLanes(cleared(job, fields), {}, result)).toHaveLength(result.lanes.length)
      }),
      { numRuns: 150 },
    )
  })

  it('that holds over all values of an unknown holds at each of them', long, () => {
    fc.assert(
      fc.property(start, evenly(0, 1), (job, at) => {
        const path = 'alternators/alternator-1/regulatorV'
        const scale = job.alternators['alternator-1']?.nominalV?.value === '24' ? 2 : 1
        const open = assessed(withField(job, path, { value: null }), {}, { quick: true })
        const seen = [
          job.alternators['alternator-1']?.lowestV?.value ?? 13.6,
          job.alternators['alternator-1']?.highestV?.value ?? 14.6,
        ]
        const known = assessed(
          withField(job, path, { value: (seen[0]! + (seen[1]! - seen[0]!) * at) * scale, how: 'measured' }),
          {},
          { quick: true },
        )
        for (const c of known.checks) {
          const before = open.checks.find((o) => o.key === c.key)
          if (before && before.verdict !== 'measure-first')
            expect({ key: c.key, verdict: c.verdict }).toEqual({ key: c.key, verdict: before.verdict })
        }
      }),
      { numRuns: 150 },
    )
  })

  it('gives the same assessment twice, and leaves the job as it was', () => {
    const job = demo('0421')
    const before = JSON.stringify(job)
    expect(assessed(job)).toEqual(assessed(job))
    expect(JSON.stringify(job)).toBe(before)
  })
})

describe('remedies', () => {
  const troubled = [
    demo('0417'),
    demo('0421'),
    demo('0427'),
    demo('0430'),
    demo('0433'),
    withoutPart(goodJob(), 'links/link-1'),
    withMeasured(straightJob({ kind: 'diode', dropV: 0.7 }), 'inverters', {
      continuousW: 2500,
      efficiency: 90,
    }),
  ]

  it('that change the job settle the check they stand first on', long, () => {
    for (const job of troubled) {
      for (const c of assessed(job).checks.filter(
        (r) => r.verdict === 'suits-once-changed' && canTry(r.remedies[0]!),
      )) {
        const after = assessed(applyRemedy(job, c.remedies[0]!)).checks.find((r) => r.key === c.key)
        expect({ key: c.key, verdict: after?.verdict ?? 'suits' }).toEqual({ key: c.key, verdict: 'suits' })
      }
    }
  })

  it('leave the survey as it is', () => {
    const job = demo('0417')
    const copy = JSON.stringify(job)
    for (const c of assessed(job).checks)
      for (const remedy of c.remedies.filter(canTry)) expect(applyRemedy(job, remedy)).not.toBe(job)
    expect(JSON.stringify(job)).toBe(copy)
  })

  it('have names without gaps', () => {
    for (const job of troubled)
      for (const c of assessed(job).checks)
        for (const remedy of c.remedies) expect(remedyLabel(remedy, q)).not.toMatch(/undefined|NaN|–/)
  })

  it('a DC-DC is sized so that neither battery nor alternator is overdrawn', () => {
    const remedy = assessed(demo('0421')).checks.find((c) => c.id === 'link.vsr-never-opens')!.remedies[0]!
    const after = assessed(applyRemedy(demo('0421'), remedy))
    // Whatever the rise of its case, which nobody has measured yet.
    expect(after.checks.find((c) => c.id === 'dcdc.output')!.verdict).toBe('suits')
    expect(after.checks.find((c) => c.id === 'dcdc.signal')!.verdict).toBe('suits')
    expect(after.checks.some((c) => c.verdict === 'does-not-suit')).toBe(false)
  })
})

describe('the instruments', () => {
  it('share one scale, and mark values outside with their verdict', () => {
    const job = demo('0417')
    const drawings = drawLanes(job, {}, assessed(job))
    expect(new Set(drawings.map((d) => `${d.ruler.from} ${d.ruler.to}`)).size).toBe(1)
    const [shore, alternator] = drawings
    expect(shore!.ruler.marks.map((m) => [m.label, m.low, m.verdict])).toEqual([
      ['float', 13.5, 'suits'],
      ['absorb', 14.4, 'suits'],
      ['equalise', 15.5, 'suits-once-changed'],
    ])
    expect(alternator!.ruler.marks[0]!.low).toBeCloseTo(13.7)
  })

  it('name the smallest current, and leave out unknown ones', () => {
    const job = withValues(demo('0417'), { 'alternators/alternator-1/vehicleDrawA': null })
    const stack = drawLanes(job, {}, assessed(job))[1]!.stack
    expect(stack.rows.find((r) => r.label === 'alternator all day')!.amps).toBeNull()
    expect(stack.rows[stack.governs!]!.label).toBe('battery recommends')
    const known = drawLanes(demo('0417'), {}, assessed(demo('0417')))[1]!.stack
    const governs = known.rows[known.governs!]!
    expect(governs.label).toBe('alternator all day')
    expect(governs.amps).toBeCloseTo(59.8, 1)
  })

  it('draw the compensated voltage that the check compares', () => {
    const job = withValues(goodJob(), {
      'chargers/charger-1/compensation': 'fixed',
      'chargers/charger-1/compensationMv': 4,
      'place/coldestC': 0,
      'place/hottestC': 26,
    })
    const assessment = assessed(job)
    const marks = drawLanes(job, {}, assessment)[0]!.ruler.marks
    const compared = assessment.checks.find(
      (c) => c.id === 'charger.temperature-compensation' && c.on === 'chargers/charger-1',
    )!.compared[0].value
    expect(marks.find((m) => m.label === 'in the cold')).toMatchObject({
      low: compared,
      high: compared,
      verdict: 'does-not-suit',
    })
    expect(compared).toBeCloseTo(15, 6)
  })

  it('draw an unknown voltage as its range', () => {
    const job = withValues(demo('0417'), { 'alternators/alternator-1/regulatorV': null })
    const mark = drawLanes(job, {}, assessed(job))[1]!.ruler.marks.find((m) => m.label === 'at the battery')!
    expect(mark).toMatchObject({ unknown: true, verdict: 'measure-first' })
    expect([mark.low, mark.high].map((v) => v.toFixed(1))).toEqual(['12.9', '13.9'])
  })
})
