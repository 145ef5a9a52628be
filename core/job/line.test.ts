import { readdirSync, readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { JobDocument } from './document'
import { readLines } from './dictation'
import { readLine } from './line'
import { metric } from '#core/units/display'

const folder = new URL('../../demo/jobs/', import.meta.url)
const jobs = readdirSync(folder).map(
  (name) => JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as JobDocument,
)
const [workboat, van] = jobs as [JobDocument, JobDocument]
/** What a line would set first. */
const first = (line: string, job = workboat, units = metric): string => {
  const [value] = readLine(job, line, units)
  return value ? `${value.path} ${value.value} ${value.how ?? ''}`.trim() : ''
}

describe('a whole line', () => {
  it.each([
    ['regulator 14.4 measured', 'alternators/alternator-1/regulatorV 14.4 measured'],
    ['regulator 14,4 V', 'alternators/alternator-1/regulatorV 14.4'],
    ['charger float 13,5 label', 'chargers/charger-1/floatV 13.5 label'],
    ['charger 1 absorption 14.2', 'chargers/charger-1/absorptionV 14.2'],
    ['shore charger absorption voltage 14.2 maker', 'chargers/charger-1/absorptionV 14.2 maker'],
    ['coldest -5 customer', 'place/coldestC -5 customer'],
    ['where engine', 'place/where engine'],
    ['outputs 2', 'chargers/charger-1/outputs 2'],
    ['deck winch draw 90', 'loads/load-1/amps 90'],
  ])('%s', (line, means) => expect(first(line)).toBe(means))

  it('says nothing of one word, a value alone, a value that cannot be, or words of nothing', () => {
    for (const line of [
      '',
      'regulator',
      '14.4',
      '14.4 measured',
      'regulator 900 V',
      'outputs 2.5',
      'teapot 3',
      'measured measured',
    ])
      expect(first(line)).toBe('')
  })

  it('tells one of several by its number', () => {
    const [one] = Object.values(workboat.chargers)
    const two = { ...workboat, chargers: { 'charger-1': one!, 'charger-2': { ...one!, name: 'Second' } } }
    expect(first('charger 2 float 13.5', two)).toBe('chargers/charger-2/floatV 13.5')
    expect(first('second float 13.5', two)).toBe('chargers/charger-2/floatV 13.5')
    expect(readLine(two, 'float 13.5', metric).map(({ path }) => path)).toEqual(
      expect.arrayContaining(['chargers/charger-1/floatV', 'chargers/charger-2/floatV']),
    )
  })

  it('reads units as the shop writes them', () => {
    expect(first('coldest 23', van, { system: 'imperial', currency: '$' })).toBe('place/coldestC -5')
    expect(first('coldest 23 F', van)).toBe('place/coldestC -5')
  })

  it('never throws, and returns only possible values', () => {
    fc.assert(
      fc.property(fc.constantFrom(...jobs), fc.string({ maxLength: 60 }), (job, line) =>
        readLine(job, line, metric).every(({ field, value }) =>
          field.type === 'quantity'
            ? Number(value) >= field.limits[0] && Number(value) <= field.limits[1]
            : field.type === 'choice' && Object.hasOwn(field.options, value),
        ),
      ),
    )
  })
})

describe('several values at once', () => {
  const read = (text: string, job = workboat) => {
    const { values, unread } = readLines(job, text, metric)
    return { set: values.map(({ path, value, how }) => `${path} ${value} ${how ?? ''}`.trim()), unread }
  }

  it('reads a dictated line: each part once, values by their unit or their label', () => {
    expect(read('alternator 90 amps 14.4 volts measured, shore charger 30 amps float 13.6')).toEqual({
      set: [
        'alternators/alternator-1/ratedA 90 measured',
        'alternators/alternator-1/regulatorV 14.4 measured',
        'chargers/charger-1/ratedA 30',
        'chargers/charger-1/floatV 13.6',
      ],
      unread: [],
    })
    expect(read('House bank 110 amp hours label; place coldest minus 5 degrees customer')).toEqual({
      set: ['houseBank/ahEach 110 label', 'place/coldestC -5 customer'],
      unread: [],
    })
    expect(read('cable 25 mm2 3 metres\ncharger 1 absorption 14,2 float 13,5 maker').set).toEqual([
      'conductors/cable-1/areaMm2 25',
      'conductors/cable-1/lengthM 3',
      'chargers/charger-1/absorptionV 14.2 maker',
      'chargers/charger-1/floatV 13.5 maker',
    ])
  })

  it('returns words that it does not understand, and sets none of them', () => {
    expect(read('teapot 3 amps, alternator 900 volts')).toEqual({
      set: [],
      unread: ['teapot 3 amps', 'alternator 900 volts'],
    })
    expect(read('alternator 90')).toEqual({ set: [], unread: ['alternator 90'] })
    expect(read('the battery is fine').set).toEqual([])
    expect(read('')).toEqual({ set: [], unread: [] })
  })

  it('takes the last of two values for one field, and any text without harm', () => {
    expect(read('alternator 80 amps, alternator 90 amps').set).toEqual(['alternators/alternator-1/ratedA 90'])
    fc.assert(
      fc.property(fc.string({ maxLength: 80 }), (text) => {
        for (const { value, field } of readLines(workboat, text, metric).values)
          expect(typeof value === 'number' || field.type === 'choice').toBe(true)
      }),
    )
  })
})
