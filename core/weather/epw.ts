import { elementAt, firstOf } from '#core/collections/held'
import { onPanel, sunAt, type Weather } from './sun'

/** A year of hours from a weather file. */
interface EpwFile {
  readonly place: string
  readonly latitude: number
  readonly longitude: number
  /** Hours ahead of UTC. */
  readonly zone: number
  readonly hours: readonly EpwHour[]
  /** Repairs during reading, in words. */
  readonly notes: readonly string[]
}
interface EpwHour {
  readonly month: number
  readonly day: number
  /** 0 to 23, the hour that begins then. */
  readonly hour: number
  readonly airC: number
  /** Direct normal and diffuse horizontal, W/m². */
  readonly beamWm2: number
  readonly diffuseWm2: number
}
type ReadEpw =
  | { readonly ok: true; readonly file: EpwFile }
  | { readonly ok: false; readonly line: number; readonly error: string }

/** Of a file that is read, characters: a year of hours has about 1.5 million. */
const largestLength = 6 * 1024 * 1024
const headerLines = 8
const column = { month: 1, day: 2, hour: 3 } as const
/** Where a measurement stands, the least and the most it may be, and from where on it says that it is missing. */
const measured = {
  airC: { at: 6, least: -80, most: 70, missingFrom: 99.9 },
  beam: { at: 14, least: 0, most: 1400, missingFrom: 9999 },
  diffuse: { at: 15, least: 0, most: 1000, missingFrom: 9999 },
} as const
const leastHours = 24

/** The error that makes a file unreadable, with its line. */
class Unreadable extends Error {
  constructor(
    readonly line: number,
    words: string,
  ) {
    super(words)
  }
}

/**
 * Reads an hourly EPW weather file (the open EnergyPlus format): eight header lines, then one line an hour.
 * Missing values (99.9 °C, 9999 Wh/m²) take the hour before. A 29 February and all line ends are read. An
 * unreadable file is refused with its line.
 */
export function readEpw(text: string): ReadEpw {
  try {
    const lines = linesOf(text)
    const head = headOf(firstOf(lines))
    checkCount(lines.length)
    const hours: EpwHour[] = []
    let filled = 0
    for (let i = headerLines; i < lines.length; i++) {
      const read = hourOf(elementAt(lines, i), i + 1, hours.at(-1))
      hours.push(read.hour)
      filled += read.filled
    }
    const notes = filled > 0 ? [`${filled} missing values took the hour before.`] : []
    return { ok: true, file: { ...head, hours, notes } }
  } catch (cause) {
    if (cause instanceof Unreadable) return { ok: false, line: cause.line, error: cause.message }
    throw cause
  }
}

function linesOf(text: string): string[] {
  if (text.length > largestLength)
    throw new Unreadable(1, 'The file is larger than 6 MB. A year of hourly data needs less than 2 MB')
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/)
  while (lines.at(-1)?.trim() === '') lines.pop()
  if (lines.length === 0) throw new Unreadable(1, 'The file is empty')
  return lines
}

/** Place, latitude, longitude and time zone of the first line. */
function headOf(line: string): Pick<EpwFile, 'place' | 'latitude' | 'longitude' | 'zone'> {
  const head = line.split(',').map((cell) => cell.trim())
  if (head[0]?.toUpperCase() !== 'LOCATION')
    throw new Unreadable(1, 'This is not an EPW file: its first line does not begin with LOCATION')
  const [latitude, longitude, zone] = [Number(head[6]), Number(head[7]), Number(head[8])]
  if (!(Math.abs(latitude) <= 90) || !(Math.abs(longitude) <= 180) || !(Math.abs(zone) <= 14))
    throw new Unreadable(1, 'Latitude, longitude or time zone cannot be read')
  return { place: head[1] ?? '', latitude, longitude, zone }
}

function checkCount(lines: number): void {
  const hours = lines - headerLines
  if (hours < leastHours)
    throw new Unreadable(lines, `There are ${Math.max(0, hours)} hours; at least one day is needed`)
  if (hours > 8784)
    throw new Unreadable(
      headerLines + 8785,
      'There are more hours than in a year. Only hourly files can be read',
    )
}

/** An hour, and how many of its values were missing. @param before the hour before, which fills them */
function hourOf(
  text: string,
  line: number,
  before: EpwHour | undefined,
): { readonly hour: EpwHour; readonly filled: number } {
  const cells = text.split(',')
  if (cells.length < 16) throw new Unreadable(line, `has ${cells.length} values; an hour has 35`)
  const number = (at: number): number => (elementAt(cells, at).trim() === '' ? NaN : Number(cells[at]))
  const [month, day, hour] = [number(column.month), number(column.day), number(column.hour)]
  if (!isDay(month, day) || !(hour >= 0 && hour <= 24))
    throw new Unreadable(line, 'has no month, day and hour that can be')
  let filled = 0
  const value = (of: keyof typeof measured, fallback: number): number => {
    const { at, least, most, missingFrom } = measured[of]
    const read = number(at)
    if (Number.isFinite(read) && read < missingFrom && read >= least) return Math.min(most, read)
    filled++
    return fallback
  }
  const airC = value('airC', before?.airC ?? 10)
  const beamWm2 = value('beam', before?.beamWm2 ?? 0)
  const diffuseWm2 = value('diffuse', before?.diffuseWm2 ?? 0)
  return { hour: { month, day, hour: Math.max(0, Math.ceil(hour) - 1), airC, beamWm2, diffuseWm2 }, filled }
}

const isDay = (month: number, day: number): boolean =>
  Number.isInteger(month) && Number.isInteger(day) && month >= 1 && month <= 12 && day >= 1 && day <= 31

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
