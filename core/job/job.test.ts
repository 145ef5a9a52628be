import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { goodJob, withMeasured, withValues } from '#core/testing'
import { applyChanges, changesBetween, conflictsBetween, inverseOf } from './changes'
import {
  emptyJob,
  fieldAt,
  isAsked,
  knownAt,
  listParts,
  partAt,
  partInSentence,
  partName,
  partsOf,
  withField,
  withNewPart,
  withoutPart,
  withPart,
  type JobDocument,
} from './document'
import { partKinds, type PartKind } from './fields'
import { cellsOf, formatRows, parseRows, rowsProblem, textOfCells } from './rows'

const { driveTally, temperatureReadings } = partKinds.alternators.fields
const { restedEachV } = partKinds.houseBank.fields

describe('the job document', () => {
  it('lists parts in walking order, collections by number', () => {
    let job = emptyJob('1')
    for (let i = 0; i < 11; i++) job = withNewPart(job, 'chargers').job
    expect(
      partsOf(job, 'chargers')
        .map((p) => p.id)
        .slice(-2),
    ).toEqual(['charger-10', 'charger-11'])
    expect(listParts(job)[0]!.kind).toBe('use')
  })

  it('finds values by path, and nothing where there is nothing', () => {
    expect(knownAt(goodJob(), 'chargers/charger-1/absorptionV')).toMatchObject({ value: 14.4 })
    expect(knownAt(goodJob(), 'place/nonsense')).toBeUndefined()
    expect(partAt(goodJob(), 'chargers/charger-9')).toBeNull()
    expect(partAt(goodJob(), 'toString')).toBeNull()
    expect(fieldAt('constructor/name')).toBeNull()
    expect(() => withField(goodJob(), 'place/nonsense', { value: 1 })).toThrow('No such field')
  })

  it('takes cables and links away with the part they belong to', () => {
    let job = withMeasured(goodJob(), 'conductors', { lengthM: 2 }, { of: 'links/link-1' })
    job = withMeasured(job, 'conductors', { lengthM: 3 }, { of: 'chargers/charger-1' })
    const without = withoutPart(job, 'alternators/alternator-1')
    expect(Object.keys(without.links)).toEqual([])
    expect(Object.keys(without.conductors)).toEqual(['cable-2'])
  })

  it('never gives a new part the id of one still there', () => {
    const { job, path } = withNewPart(withNewPart(emptyJob('1'), 'devices').job, 'devices')
    expect(path).toBe('devices/device-2')
    expect(withNewPart(withoutPart(job, 'devices/device-1'), 'devices').path).toBe('devices/device-3')
  })

  it('names parts by their own name, else by kind and number', () => {
    expect(partName(goodJob(), 'chargers/charger-1')).toBe('Mains charger')
    expect(partInSentence(goodJob(), 'chargers/charger-1')).toBe('the mains charger')
    const two = withNewPart(goodJob(), 'chargers', { name: 'Spare' }).job
    expect([partName(two, 'chargers/charger-1'), partName(two, 'chargers/charger-2')]).toEqual([
      'Mains charger 1',
      'Spare',
    ])
    expect(partInSentence(two, 'chargers/charger-2')).toBe('Spare')
  })

  it('asks a field only while its condition may hold', () => {
    const { floatV } = partKinds.chargers.fields
    expect(isAsked({}, floatV)).toBe(true)
    expect(isAsked({ floatMode: { value: 'off' } }, floatV)).toBe(false)
    const dcdcFloat = partKinds.links.fields.floatV
    expect(isAsked({ kind: { value: 'vsr' } }, dcdcFloat)).toBe(false)
    expect(isAsked({ kind: { value: 'dcdc' }, floatMode: { value: 'on' } }, dcdcFloat)).toBe(true)
  })

  it('has a line on how to find every value, and a plausible range inside its limits', () => {
    for (const kind of Object.values(partKinds) as PartKind[]) {
      for (const field of Object.values(kind.fields)) {
        expect(field.measure).toMatch(/\.$/)
        if (field.type === 'quantity' && typeof field.plausible !== 'function') {
          expect(field.plausible[0]).toBeLessThan(field.plausible[1])
          expect(field.plausible[0]).toBeGreaterThanOrEqual(field.limits[0])
          expect(field.plausible[1]).toBeLessThanOrEqual(field.limits[1])
        }
      }
    }
  })
})

const anyJob: fc.Arbitrary<JobDocument> = fc
  .record({
    cold: fc.integer({ min: -20, max: 20 }),
    amps: fc.integer({ min: 1, max: 90 }),
    name: fc.constantFrom('A', 'B'),
    second: fc.boolean(),
    gone: fc.boolean(),
  })
  .map(({ cold, amps, name, second, gone }) => {
    let job = withValues(goodJob(), { 'place/coldestC': cold, 'chargers/charger-1/ratedA': amps })
    job = { ...job, job: { ...job.job, name } }
    if (second) job = withMeasured(job, 'chargers', { ratedA: amps })
    return gone ? withoutPart(job, 'links/link-1') : job
  })

describe('changes', () => {
  it('lead from one state to the other and back', () => {
    fc.assert(
      fc.property(anyJob, anyJob, (a, b) => {
        const changes = changesBetween(a, b)
        expect(applyChanges(a, changes)).toEqual(b)
        expect(applyChanges(b, inverseOf(changes))).toEqual(a)
        expect(changesBetween(a, a)).toEqual([])
      }),
    )
  })

  it('name the value, not the whole part', () => {
    const after = withValues(goodJob(), { 'place/coldestC': 3 })
    expect(changesBetween(goodJob(), after)).toEqual([
      {
        path: 'place/coldestC',
        before: { value: 12, how: 'measured' },
        after: { value: 3, how: 'measured' },
      },
    ])
  })

  it('do not mind the order of properties', () => {
    const job = goodJob()
    const turned = Object.fromEntries(Object.entries(job).reverse()) as unknown as JobDocument
    expect(changesBetween(job, turned)).toEqual([])
  })

  it('of two people on different values do not meet', () => {
    const mine = changesBetween(goodJob(), withValues(goodJob(), { 'place/coldestC': 3 }))
    const theirs = changesBetween(goodJob(), withValues(goodJob(), { 'place/hottestC': 40 }))
    expect(conflictsBetween(mine, theirs)).toEqual([])
    expect(applyChanges(applyChanges(goodJob(), theirs), mine)).toEqual(
      withValues(goodJob(), { 'place/coldestC': 3, 'place/hottestC': 40 }),
    )
  })

  it('of two people on one value meet, unless they agree', () => {
    const to = (value: number) =>
      changesBetween(goodJob(), withValues(goodJob(), { 'place/coldestC': value }))
    expect(conflictsBetween(to(3), to(4)).map((c) => c.path)).toEqual(['place/coldestC'])
    expect(conflictsBetween(to(3), to(3))).toEqual([])
  })

  it('meet when one takes away the part the other changed', () => {
    const removed = changesBetween(goodJob(), withoutPart(goodJob(), 'chargers/charger-1'))
    const edited = changesBetween(goodJob(), withValues(goodJob(), { 'chargers/charger-1/floatV': 13.4 }))
    expect(conflictsBetween(edited, removed).map((c) => c.path)).toEqual(['chargers/charger-1'])
  })

  it('inside a part that is gone are left out', () => {
    const edited = changesBetween(
      goodJob(),
      withPart(goodJob(), 'chargers/charger-1', (part) => ({ ...part, name: 'X' })),
    )
    const gone = withoutPart(goodJob(), 'chargers/charger-1')
    expect(applyChanges(gone, edited)).toEqual(gone)
  })
})

describe('minutes at volts', () => {
  it.each([
    [
      '25 at 14.4, 30 at 12.6',
      [
        [25, 14.4],
        [30, 12.6],
      ],
    ],
    [
      '25 min at 14,4 V; 30 at 12,6',
      [
        [25, 14.4],
        [30, 12.6],
      ],
    ],
    ['10@13.8', [[10, 13.8]]],
  ])('%s', (text, rows) =>
    expect(parseRows(text, driveTally)).toEqual(rows.map(([minutes, volts]) => ({ minutes, volts }))),
  )
  it.each(['', 'about half', '25 at', '25 at 14.4 at 3', '-5 at 14', '5 at 900'])('%j is refused', (text) =>
    expect(parseRows(text, driveTally)).toBeNull(),
  )
  it('reads its own words back', () =>
    expect(
      parseRows(
        formatRows(
          [
            { minutes: 5, volts: 14.25 },
            { minutes: 3, volts: 13 },
          ],
          driveTally,
        ),
        driveTally,
      ),
    ).toEqual([
      { minutes: 5, volts: 14.25 },
      { minutes: 3, volts: 13 },
    ]))
})

describe('other tables written as text', () => {
  it('take as many columns as they have', () => {
    expect(parseRows('60 / 2000 / 10 / 82; 75 A/2000 rpm/20 min/95 °C', temperatureReadings)).toEqual([
      { amps: 60, rpm: 2000, minutes: 10, celsius: 82 },
      { amps: 75, rpm: 2000, minutes: 20, celsius: 95 },
    ])
    expect(parseRows('60 / 2000 / 10', temperatureReadings)).toBeNull()
    expect(parseRows('12,62; 12,58', restedEachV)).toEqual([{ volts: 12.62 }, { volts: 12.58 }])
    expect(parseRows('12.62 at 3', restedEachV)).toBeNull()
  })
  it.each([
    ['60 / 2000 / 10 / 82', null],
    ['60 / 2000 /  / 82', 'Row 1, after: still to be entered'],
    ['60 / 2000 / 10 / 82\n75 / 2000', 'Row 2, after: still to be entered'],
    ['60 / fast / 10 / 82', 'Row 1, alternator speed: “fast” is not a number'],
    ['60 / 2000 / 10 / 820', 'Row 1, case: must be −50 to 250 °C'],
    ['60 / 2000 / 10 / 82 / 3', 'Row 1 has more than 4 values'],
  ])('%j: %s', (text, problem) => expect(rowsProblem(text, temperatureReadings)).toBe(problem))
  it('keep cells that are not filled in yet, and drop empty rows', () => {
    const cells = [
      ['60', '2000', '', ''],
      ['', '', '', ''],
      ['75', '', '', '95'],
    ]
    expect(cellsOf(textOfCells(cells))).toEqual([cells[0], cells[2]])
    expect(parseRows(textOfCells([['25', '14,4']]), driveTally)).toEqual([{ minutes: 25, volts: 14.4 }])
  })
})
