/**
 * The units of the trade, and the ways to write each. The first unit of a family is the stored one; `factor` and
 * `offset` convert a written number into it: stored = written × factor + offset.
 */
interface Spelling {
  readonly factor: number
  readonly offset?: number
}

const plain: Spelling = { factor: 1 }

/** Spellings are compared without spaces and without regard to case. */
export const spellings = {
  V: { v: plain, volt: plain, volts: plain, mv: { factor: 0.001 } },
  mA: { ma: plain, a: { factor: 1000 } },
  A: { a: plain, amp: plain, amps: plain, ma: { factor: 0.001 }, ka: { factor: 1000 } },
  Ah: { ah: plain, mah: { factor: 0.001 } },
  W: { w: plain, wp: plain, watt: plain, watts: plain, kw: { factor: 1000 } },
  Wh: { wh: plain, kwh: { factor: 1000 } },
  mΩ: { mω: plain, mohm: plain, mohms: plain, ω: { factor: 1000 }, ohm: { factor: 1000 } },
  'mm²': { 'mm²': plain, mm2: plain, sqmm: plain },
  m: {
    m: plain,
    cm: { factor: 0.01 },
    mm: { factor: 0.001 },
    ft: { factor: 0.3048 },
    "'": { factor: 0.3048 },
    in: { factor: 0.0254 },
    '"': { factor: 0.0254 },
  },
  mm: {
    mm: plain,
    cm: { factor: 10 },
    m: { factor: 1000 },
    in: { factor: 25.4 },
    '"': { factor: 25.4 },
    inch: { factor: 25.4 },
    inches: { factor: 25.4 },
    ft: { factor: 304.8 },
    "'": { factor: 304.8 },
  },
  kg: { kg: plain, g: { factor: 0.001 }, lb: { factor: 0.45359237 }, lbs: { factor: 0.45359237 } },
  '°C': {
    '°c': plain,
    c: plain,
    º: plain,
    '°': plain,
    '°f': { factor: 5 / 9, offset: -160 / 9 },
    f: { factor: 5 / 9, offset: -160 / 9 },
  },
  h: {
    h: plain,
    hr: plain,
    hrs: plain,
    hour: plain,
    hours: plain,
    min: { factor: 1 / 60 },
    mins: { factor: 1 / 60 },
  },
  /** A difference of temperatures. */
  'Δ°C': { '°c': plain, c: plain, k: plain, '°f': { factor: 5 / 9 }, f: { factor: 5 / 9 } },
  s: { s: plain, sec: plain, secs: plain, seconds: plain, ms: { factor: 0.001 }, min: { factor: 60 } },
  min: { min: plain, mins: plain, minutes: plain, h: { factor: 60 } },
  days: { days: plain, day: plain, d: plain, weeks: { factor: 7 }, week: { factor: 7 } },
  weeks: { weeks: plain, week: plain, months: { factor: 365.25 / 84 } },
  '°': { '°': plain, deg: plain, degrees: plain },
  '%/°C': { '%/°c': plain, '%/c': plain, '%/k': plain, '%': plain },
  rpm: { rpm: plain, '1/min': plain },
  'mV/°C': { 'mv/°c': plain, 'mv/c': plain, 'mv/k': plain, mv: plain, 'v/°c': { factor: 1000 } },
  years: { years: plain, year: plain, y: plain, yr: plain, months: { factor: 1 / 12 } },
  '%': { '%': plain, percent: plain },
  /** Money of the shop; its sign is a setting of the shop. */
  money: { '€': plain, '£': plain, $: plain },
  '×': { '×': plain, x: plain, ':1': plain },
  '': {},
} as const satisfies Record<string, Record<string, Spelling>>

/** A unit in which the core stores and computes. `%` is for people; `''` is a count. */
export type Unit = keyof typeof spellings

/**
 * Copper conductors by American wire gauge, mm². From the reference table of conductors,
 * rows with a trade size.
 */
export const areaByAwg: Readonly<Record<string, number>> = {
  18: 0.82,
  16: 1.31,
  14: 2.08,
  12: 3.31,
  10: 5.26,
  8: 8.37,
  6: 13.3,
  4: 21.2,
  2: 33.6,
  1: 42.4,
  '1/0': 53.5,
  '2/0': 67.4,
  '3/0': 85,
  '4/0': 107,
  0: 53.5,
  '00': 67.4,
  '000': 85,
  '0000': 107,
}
