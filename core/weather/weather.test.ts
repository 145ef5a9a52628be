import { averageYear } from './average-year'
import fc from 'fast-check'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { readEpw, weatherOf } from './epw'
import { clearDays, clearSky, onPanel, sunAt } from './sun'

const shipped = (name: string): string =>
  readFileSync(new URL(`../../public/weather/${name}.epw`, import.meta.url), 'utf8')
const mean = (values: ArrayLike<number>): number =>
  Array.from(values).reduce((a, b) => a + b, 0) / values.length

describe('a year of average months', () => {
  const year = averageYear({ latitude: 50.4, longitude: -4.1, tilt: 0, clearness: 0.5 })
  const dayOf = (values: Float64Array, day: number): number =>
    values.slice(day * 24, day * 24 + 24).reduce((sum, value) => sum + value, 0)

  it('is 365 days of 24 hours', () => {
    expect(year.airC).toHaveLength(8760)
    expect(year.panelWm2).toHaveLength(8760)
  })
  it('has its summer: several times the sun of midwinter, and warm', () => {
    expect(dayOf(year.panelWm2, 170)).toBeGreaterThan(4 * dayOf(year.panelWm2, 350))
    expect(dayOf(year.airC, 200) / 24).toBeCloseTo(16.8, 1)
    expect(dayOf(year.airC, 10) / 24).toBeCloseTo(3.8, 1)
  })
  it('says where it comes from', () => expect(year.source).toContain('monthly averages'))
})

describe('the sun', () => {
  it('stands where the almanac has it: noon at the equinox, at 50° north, 40° high in the south', () => {
    const { altitude, azimuth } = sunAt(Date.UTC(2025, 2, 20, 12, 8), 50, 0)
    expect((altitude * 180) / Math.PI).toBeCloseTo(40, 0)
    expect(Math.abs((azimuth * 180) / Math.PI)).toBeLessThan(2)
  })
  it('gives about a kilowatt through one air mass, and nothing at night', () => {
    expect(clearSky(Math.PI / 2).beam).toBeCloseTo(947, 0)
    expect(clearSky(-0.1)).toEqual({ beam: 0, diffuse: 0 })
  })
  it('on a flat panel is the horizontal sum; a tilt towards it gives more when it stands low', () => {
    expect(onPanel(800, 100, Math.PI / 6, 0, 0, 50)).toBeCloseTo(800 * 0.5 + 100, 6)
    expect(onPanel(800, 100, Math.PI / 6, 0, 45, 50)).toBeGreaterThan(
      onPanel(800, 100, Math.PI / 6, 0, 0, 50),
    )
    expect(onPanel(800, 100, Math.PI / 6, Math.PI, 45, -35)).toBeGreaterThan(
      onPanel(800, 100, Math.PI / 6, 0, 45, -35),
    )
  })
  it('of a clear June day brings 6 to 9 hours of full sun', () => {
    const day = clearDays({
      dayMs: Date.UTC(2025, 5, 21),
      days: 1,
      latitude: 50,
      longitude: 0,
      tiltDeg: 0,
      clearness: 1,
      meanC: 15,
      swingC: 5,
    })
    const hours = mean(day.panelWm2) * 0.024
    expect(hours).toBeGreaterThan(6)
    expect(hours).toBeLessThan(9)
    expect(Math.min(...day.airC)).toBeCloseTo(10, 1)
  })
})

describe('weather files', () => {
  it.each([
    ['port-larkspur', 11, 50.4],
    ['hollin-fell', 3.5, 54.6],
  ])('%s is whole, and its year is plausible', (name, airC, latitude) => {
    const read = readEpw(shipped(name))
    expect(read).toMatchObject({ ok: true, file: { latitude, notes: [] } })
    if (!read.ok) return
    expect(read.file.hours).toHaveLength(8760)
    expect(Math.abs(mean(read.file.hours.map((h) => h.airC)) - airC)).toBeLessThan(1.5)
    const weather = weatherOf(read.file, 30)
    const yearKwh = mean(weather.panelWm2) * 8.76
    expect(yearKwh).toBeGreaterThan(600)
    expect(yearKwh).toBeLessThan(1500)
  })
  it('the mountain station freezes for weeks', () => {
    const read = readEpw(shipped('hollin-fell'))
    expect(read.ok && read.file.hours.filter((h) => h.airC < 0).length).toBeGreaterThan(24 * 30)
  })

  const head = ['LOCATION,Testing,-,-,x,0,50,0,0,0', ...Array.from({ length: 7 }, () => 'X,0')]
  const hour = (
    month: number,
    day: number,
    h: number,
    air: number | string,
    sun: number | string = 0,
  ): string =>
    [
      2020,
      month,
      day,
      h,
      0,
      'x',
      air,
      1,
      80,
      101000,
      0,
      0,
      0,
      sun,
      sun,
      sun,
      ...Array.from({ length: 19 }, () => 0),
    ].join(',')
  const day = Array.from({ length: 24 }, (_, i) => hour(2, 29, i + 1, 5, 100))

  it('take missing values from the hour before, a 29 February, and any line ends', () => {
    const lines = [...head, ...day]
    lines[10] = hour(2, 29, 3, 99.9, 9999)
    lines[11] = hour(2, 29, 4, '', '')
    for (const end of ['\n', '\r\n', '\r']) {
      const read = readEpw(lines.join(end))
      expect(read).toMatchObject({ ok: true, file: { notes: ['6 missing values took the hour before.'] } })
      expect(read.ok && read.file.hours[2]).toMatchObject({
        month: 2,
        day: 29,
        hour: 2,
        airC: 5,
        beamWm2: 100,
      })
    }
  })
  it.each([
    ['', 1, /empty/],
    ['hello\nworld', 1, /not an EPW/],
    [['LOCATION,a,b,c,d,e,ninety,0,0,0', ...head.slice(1), ...day].join('\n'), 1, /Latitude/],
    [[...head, ...day.slice(0, 5)].join('\n'), 13, /5 hours/],
    [[...head, ...day.slice(0, 9), '2020,2,29', ...day.slice(10)].join('\n'), 18, /3 values/],
    [
      [...head, ...day.slice(0, 9), hour(13, 2, 3, 5), ...day.slice(10)].join('\n'),
      18,
      /month, day and hour/,
    ],
    [[...head, ...Array.from({ length: 8800 }, () => day[0])].join('\n'), 8793, /more hours than in a year/],
    [`${head.join('\n')}\n${' '.repeat(7e6)}`, 1, /larger than 6 MB/],
  ])('malformed ones are refused by their line (%#)', (text, line, words) => {
    const read = readEpw(text)
    expect(read).toMatchObject({ ok: false, line })
    expect(!read.ok && read.error).toMatch(words)
  })
  it('never throw', () => {
    fc.assert(
      fc.property(
        fc.string({ maxLength: 200 }),
        fc.string({ maxLength: 100 }),
        (junk, more) => typeof readEpw(`${head.join('\n')}\n${junk}\n${more}`).ok === 'boolean',
      ),
    )
  })
})
