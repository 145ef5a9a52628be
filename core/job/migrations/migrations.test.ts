import { describe, expect, it } from 'vitest'
import { checkJob } from '#core/formats/job-file'
import { jobFormatVersion } from '../document'
import { changeUpToDate, upToDate } from './index'

const two = {
  format: 'jovial-anchor/job',
  version: 2,
  job: { number: '7', name: 'Old one', stage: 'enquiry' },
  rules: {},
  notes: { startingBattery: 'Under the seat', place: 'Dry' },
  use: {},
  houseBank: {},
  startingBattery: { present: { value: 'yes', how: 'measured' }, ah: { value: 90 } },
  place: {},
  candidate: {},
  alternators: { 'alternator-10': {}, 'alternator-2': {} },
  links: {},
  chargers: {},
  solar: {},
  sources: {},
  generators: {},
  inverters: {},
  loads: {},
  conductors: {},
  devices: {},
  alternatives: {},
  specified: {
    name: 'a',
    at: '2026-11-20T10:00:00.000Z',
    by: 'Ida',
    battery: [],
    steps: [],
    accepted: [],
    changes: [{ path: 'startingBattery/fedByCharger', after: { value: 'yes' } }],
  },
}

describe('an older job', () => {
  it('of version 2 gives its starting battery to the first alternator, with its note and its specification', () => {
    const job = upToDate(two) as unknown as typeof two & { startingBatteries: unknown }
    expect(job.version).toBe(jobFormatVersion)
    expect(job.startingBatteries).toEqual({
      'starting-1': { from: 'alternators/alternator-2', ...two.startingBattery },
    })
    expect(job).not.toHaveProperty('startingBattery')
    expect(job.notes).toEqual({ startingBatteries: 'Under the seat', place: 'Dry' })
    expect(job.specified.changes[0]!.path).toBe('startingBatteries/starting-1/fedByCharger')
    expect(checkJob(two)).toMatchObject({ ok: true, job: { version: jobFormatVersion } })
  })

  it('of version 1 walks every step', () => {
    const {
      notes: _notes,
      solar: _solar,
      sources: _sources,
      generators: _generators,
      loads: _loads,
      alternatives: _others,
      ...one
    } = two
    expect(checkJob({ ...one, version: 1 })).toMatchObject({
      ok: true,
      job: { version: jobFormatVersion, loads: {}, notes: {} },
    })
  })

  it('without an alternator keeps its starting battery, fed by none', () => {
    expect(upToDate({ ...two, alternators: {} })).toMatchObject({
      startingBatteries: { 'starting-1': two.startingBattery },
    })
  })

  it('of this version, or of none that is known, stays as it is', () => {
    const now = upToDate(two)
    expect(upToDate(now)).toBe(now)
    for (const version of [0, -1, 1.5, 'two', 99, undefined])
      expect(upToDate({ ...two, version })).toEqual({ ...two, version })
  })

  it('has the changes of its history under their new names', () => {
    expect(changeUpToDate({ path: 'startingBattery/ah', after: 3 })).toEqual({
      path: 'startingBatteries/starting-1/ah',
      after: 3,
    })
    expect(changeUpToDate({ path: 'notes/startingBattery' }).path).toBe('notes/startingBatteries')
    expect(changeUpToDate({ path: 'place/coldestC' }).path).toBe('place/coldestC')
  })
})
