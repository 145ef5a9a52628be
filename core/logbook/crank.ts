import { chanceOf, normal } from '#core/commissioning/chance'
import type { Reading } from '#core/loads/detect'
import { median } from './trend'

/** Results of a recorded start for the starting battery. */
export interface Crank {
  /** Before the starter turns, V. */
  readonly restV: number
  /** Lowest while it turns, V. */
  readonly lowestV: number
  /** While it turns steadily, A and V. */
  readonly amps: number
  readonly volts: number
  /** Of battery and leads up to where the voltage is read, mΩ. */
  readonly milliohm: number
}

/** Less than this is no start, A. */
const leastPeakA = 30
/** The starter turns where the current is above this share of its peak. */
const turningShare = 0.2
/** The first rush of current is left out, s. */
const rushS = 0.15
/** A start is weak below this, V for 12 V, by the usual rule for a battery that is not cold. */
const weakFor12V = 9.6
export const weakCrankV = (nominalV: number): number => (weakFor12V * nominalV) / 12

/**
 * Reads a recording of a start: rest, inrush, steady cranking.
 * @returns null if there is no start in it, or no reading before it
 */
export function crankOf(readings: readonly Reading[]): Crank | null {
  const peak = Math.max(0, ...readings.map(({ amps }) => Math.abs(amps)))
  if (peak < leastPeakA) return null
  const begins = readings.findIndex(({ amps }) => Math.abs(amps) > turningShare * peak)
  const start = readings[begins]
  if (!start) return null
  const before = readings.slice(0, begins).filter(({ amps }) => Math.abs(amps) < 0.1 * peak)
  const from = start.t + rushS
  const turning = readings.filter(({ t, amps }) => t >= from && Math.abs(amps) > turningShare * peak)
  if (before.length === 0 || turning.length === 0) return null
  const restV = median(before.map(({ volts }) => volts))
  const amps = median(turning.map((one) => Math.abs(one.amps)))
  const volts = median(turning.map((one) => one.volts))
  return {
    restV,
    lowestV: Math.min(...readings.slice(begins).map((one) => one.volts)),
    amps,
    volts,
    milliohm: (1000 * (restV - volts)) / amps,
  }
}

const perSecond = 50
const restS = 1
const turnsS = 2.5

/** A stand-in start: the same for the same seed. @param nominalV 12 or 24 V */
export function standInCrank(nominalV: number, seed: number): Reading[] {
  const chance = chanceOf(seed)
  const scale = nominalV / 12
  const restV = scale * (12.55 + 0.2 * chance())
  const ohm = scale * (0.004 + 0.006 * chance())
  const steadyA = 180 + 120 * chance()
  return Array.from({ length: (restS + turnsS) * perSecond }, (_, i) => {
    const t = i / perSecond
    const since = t - restS
    const load =
      since < 0 ? 0 : steadyA * (1 + 2 * Math.exp(-since / 0.05) + 0.08 * Math.sin(2 * Math.PI * 4 * since))
    const amps = load * (1 + 0.005 * normal(chance))
    return { t, amps: -amps, volts: restV - amps * ohm + 0.005 * normal(chance) }
  })
}
