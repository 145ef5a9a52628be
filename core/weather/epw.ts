import { elementAt, firstOf } from '#core/collections/held'
import { onPanel, sunAt, type Weather } from './sun'

/** A year of hours from a weather file. */
export interface EpwFile {
  readonly place: string
  readonly latitude: number
  readonly longitude: number
  /** Hours ahead of UTC. */
  readonly zone: number
  readonly hours: readonly EpwHour[]
  /** What was repaired on the way, in words. */
  readonly notes: readonly string[]
}
export interface EpwHour {
  readonly month: number
  readonly day: number
  /** 0 to 23, the hour that begins then. */
  readonly hour: number
  readonly airC: number
  /** Direct normal and diffuse horizontal, W/m². */
  readonly beamWm2: number
  readonly diffuseWm2: number
}
export type ReadEpw =
  | { readonly ok: true; readonly file: EpwFile }
  | { readonly ok: false; readonly line: number; readonly error: string }

/** Of a file that is read, characters: a year of hours has about 1.5 million. */
const largestLength = 6 * 1024 * 1024
const headerLines = 8
const column = { month: 1, day: 2, hour: 3, airC: 6, global: 13, beam: 14, diffuse: 15 } as const
const missing = { airC: 99.9, sun: 9999 } as const
const leastHours = 24

/**
 * Reads an hourly EPW weather file (the open EnergyPlus format): eight header lines, then one line an hour.
 * Missing values (99.9 °C, 9999 Wh/m²) take the hour before; a 29 February and either line end are read. What
 * cannot be read is named by its line, and nothing is taken.
 */
export function readEpw(text: string): ReadEpw {
  const bad = (line: number, error: string): ReadEpw => ({ ok: false, line, error })
  if (text.length > largestLength)
    return bad(1, 'The file is larger than 6 MB. A year of hourly data needs less than 2 MB')
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/)
  while (lines.at(-1)?.trim() === '') lines.pop()
  if (lines.length === 0) return bad(1, 'The file is empty')
  const head = firstOf(lines)
    .split(',')
    .map((cell) => cell.trim())
  if (head[0]?.toUpperCase() !== 'LOCATION')
    return bad(1, 'This is not an EPW file: its first line does not begin with LOCATION')
  const [latitude, longitude, zone] = [Number(head[6]), Number(head[7]), Number(head[8])]
  if (!(Math.abs(latitude) <= 90) || !(Math.abs(longitude) <= 180) || !(Math.abs(zone) <= 14))
    return bad(1, 'Latitude, longitude or time zone cannot be read')
  if (lines.length < headerLines + leastHours)
    return bad(
      lines.length,
      `There are ${Math.max(0, lines.length - headerLines)} hours; at least one day is needed`,
    )
  if (lines.length - headerLines > 8784)
    return bad(headerLines + 8785, 'There are more hours than in a year. Only hourly files can be read')
  const hours: EpwHour[] = []
  let filled = 0
  for (let i = headerLines; i < lines.length; i++) {
    const cells = elementAt(lines, i).split(',')
    if (cells.length < 16) return bad(i + 1, `has ${cells.length} values; an hour has 35`)
    const number = (at: number): number => (elementAt(cells, at).trim() === '' ? NaN : Number(cells[at]))
    const [month, day, hour] = [number(column.month), number(column.day), number(column.hour)]
    if (
      !(month >= 1 && month <= 12 && day >= 1 && day <= 31 && hour >= 0 && hour <= 24) ||
      !Number.isInteger(month) ||
      !Number.isInteger(day)
    )
      return bad(i + 1, 'has no month, day and hour that can be')
    const before = hours.at(-1)
    const value = (
      at: number,
      isMissing: (v: number) => boolean,
      least: number,
      most: number,
      fallback: number,
    ): number => {
      const v = number(at)
      if (!Number.isFinite(v) || isMissing(v)) {
        filled++
        return fallback
      }
      return Math.min(most, Math.max(least, v))
    }
    hours.push({
      month,
      day,
      hour: Math.max(0, Math.ceil(hour) - 1),
      airC: value(column.airC, (v) => v >= missing.airC || v < -80, -80, 70, before?.airC ?? 10),
      beamWm2: value(column.beam, (v) => v >= missing.sun || v < 0, 0, 1400, before?.beamWm2 ?? 0),
      diffuseWm2: value(column.diffuse, (v) => v >= missing.sun || v < 0, 0, 1000, before?.diffuseWm2 ?? 0),
    })
  }
  const notes = filled > 0 ? [`${filled} missing values took the hour before.`] : []
  return { ok: true, file: { place: head[1] ?? '', latitude, longitude, zone, hours, notes } }
}

/**
 * The weather of a file on a tilted panel. Years in such files are put together; they are counted as one of
 * 365 or 366 days from the first hour.
 */
export function weatherOf(file: EpwFile, tiltDeg: number): Weather {
  const first = firstOf(file.hours)
  const startMs = Date.UTC(2025, first.month - 1, first.day, first.hour) - file.zone * 3_600_000
  const panelWm2 = new Float64Array(file.hours.length)
  const airC = new Float64Array(file.hours.length)
  file.hours.forEach((hour, i) => {
    const { altitude, azimuth } = sunAt(startMs + (i + 0.5) * 3_600_000, file.latitude, file.longitude)
    panelWm2[i] = onPanel(hour.beamWm2, hour.diffuseWm2, altitude, azimuth, tiltDeg, file.latitude)
    airC[i] = hour.airC
  })
  return { startMs, panelWm2, airC, source: `weather file ${file.place}` }
}
