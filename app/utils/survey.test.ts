import { metric } from '#core/units/display'
import { writerIn } from '#core/units/format'
import { describe, expect, it } from 'vitest'
import { partKinds, usualHow, type Field } from '#core/job/fields'
import { emptyJob } from '#core/job/document'
import { goodJob, withMeasured, withValues } from '#core/testing'
import { ago } from './dates'
import { askedFields, isUnusual, readQuantity, shownValue, stationState, stationSummary } from './survey'

const q = writerIn(metric)

describe('text typed into a field', () => {
  const read = (kind: 'candidate' | 'houseBank', name: string, text: string) =>
    readQuantity((partKinds[kind].fields as unknown as Record<string, Field>)[name]!, text, metric)

  it('is a whole number where things are counted', () => {
    expect(read('candidate', 'parallel', '2.5')).toEqual({ ok: false, error: 'Enter a whole number' })
    expect(read('candidate', 'parallel', '2')).toEqual({ ok: true, value: 2 })
  })
  it('is no voltage that the nominal voltage of its part cannot have', () => {
    const regulator = partKinds.alternators.fields.regulatorV
    const at = (nominalV: string | null, text: string) =>
      readQuantity(regulator, text, metric, { nominalV: { value: nominalV } }).ok
    expect([at('12', '28'), at('12', '15.8'), at('24', '28'), at(null, '28')]).toEqual([
      false,
      true,
      true,
      true,
    ])
    expect(readQuantity(regulator, '28', metric, { nominalV: { value: '12' } })).toMatchObject({
      error: 'Must be at most 21.0 V at this nominal voltage. Check both',
    })
  })
  it('may be the year in which a battery was made', () => {
    const thisYear = new Date().getFullYear()
    expect(read('houseBank', 'ageYears', String(thisYear - 6))).toEqual({ ok: true, value: 6 })
    expect(read('houseBank', 'ageYears', '6')).toEqual({ ok: true, value: 6 })
  })
})

describe('a station', () => {
  it('is done when no shortfall, and has gaps that matter or do not', () => {
    const job = withValues(goodJob(), { 'use/negatives': 'common' })
    expect(stationState(job, 'use', [])).toBe('done')
    expect(stationState(job, 'houseBank', [])).toBe('gaps')
    expect(stationState(withValues(job, { 'place/coldestC': null }), 'place', ['place/coldestC'])).toBe(
      'matters',
    )
    expect(stationState(job, 'inverters', ['place/coldestC'])).toBe('empty')
  })

  it('describes its content in a few words', () => {
    const job = withValues(goodJob(), {
      'houseBank/parallel': 2,
      'houseBank/ahEach': 110,
      'houseBank/chemistry': 'flooded',
    })
    expect(stationSummary(job, 'houseBank', q)).toBe('2 × 110 Ah, Flooded')
    expect(stationSummary(job, 'inverters', q)).toBe('none')
    expect(stationSummary(emptyJob('1'), 'place', q)).toBe('no values yet')
    expect(stationSummary(withMeasured(job, 'chargers', {}, { name: 'Spare' }), 'chargers', q)).toBe(
      '2 entered',
    )
  })

  it('asks a link only for the fields of its kind', () => {
    const names = askedFields('links', { kind: { value: 'vsr' } }).map(([name]) => name)
    expect(names).toEqual(['kind', 'closesV', 'opensV', 'delayS', 'bothWay', 'relayA'])
  })
})

describe('values', () => {
  it('are shown with their unit or in words', () => {
    expect(shownValue(partKinds.chargers.fields.absorptionV, 14.4, q)).toBe('14.4 V')
    expect(shownValue(partKinds.links.fields.kind, 'vsr', q)).toBe('Voltage-sensed relay')
    expect(shownValue(partKinds.alternators.fields.driveTally, [{ minutes: 5, volts: 14.4 }], q)).toBe(
      '5 at 14.4',
    )
    expect(shownValue(partKinds.chargers.fields.absorptionV, null, q)).toBe('')
  })

  it('are usually known the way their line says to find them', () => {
    expect(usualHow(partKinds.chargers.fields.ratedA)).toBe('label')
    expect(usualHow(partKinds.candidate.fields.ahEach)).toBe('maker')
    expect(usualHow(partKinds.candidate.fields.parallel)).toBe('assumed')
    expect(usualHow(partKinds.place.fields.coldestC)).toBe('customer')
    expect(usualHow(partKinds.chargers.fields.floatV)).toBe('measured')
  })
})

describe('moments', () => {
  const now = Date.parse('2026-11-24T12:00:00Z')
  it.each([
    ['2026-11-24T11:59:50Z', 'just now'],
    ['2026-11-24T11:57:00Z', '3 minutes ago'],
    ['2026-11-24T09:00:00Z', '3 hours ago'],
    ['2026-11-23T11:00:00Z', 'yesterday'],
  ])('%s is %s', (iso, words) => expect(ago(iso, now)).toBe(words))
})

describe('a slip', () => {
  it.each([
    [14.4, false],
    [12.4, false],
    [1.44, true],
    [41.4, true],
    [80, false],
  ])('is noticed: %d V where 13.6 to 14.6 V is common: %s', (value, slip) => {
    expect(isUnusual(value, [13.6, 14.6], [0, 80])).toBe(slip)
  })
})
