import { chanceOf, normal } from '#core/commissioning/chance'
import { deviationOf } from '#core/commissioning/meters'
import type { Reading } from '#core/loads/detect'
import { c20OverC10, copettiDischargeV, leadCapacityAh } from '#core/physics/lead'
import { openCircuitV, resistanceFactor, temperatureFactor, typicalPackOhm } from '#core/physics/lfp'

/** A battery that is discharged from full with a known load until its voltage reaches a floor. */
export interface DischargeTest {
  readonly chemistry: 'lfp' | 'lead'
  /** Capacity on its label, Ah. */
  readonly ratedAh: number
  /** 12, 24, 48 V. */
  readonly nominalV: number
  /** The load, A. */
  readonly amps: number
  readonly celsius: number
  /** Voltage at which the test ends, V. */
  readonly floorV: number
}

export interface DischargePoint {
  /** Seconds since the load was switched on. */
  readonly t: number
  readonly volts: number
}

/** Floors for 12 V: 2.8 V a cell for lithium, 1.75 V for lead-acid. A battery’s own cut-off comes below the first. */
const floorsFor12V = { lfp: 11.2, lead: 10.5 } as const
export const usualFloorV = (chemistry: DischargeTest['chemistry'], nominalV: number): number =>
  Number(((floorsFor12V[chemistry] * nominalV) / 12).toFixed(2))

/** Heavier loads than this share of the capacity an hour warm the battery and shorten the test. */
export const mostRate = 0.25
const points = 240
/** Of a cell of lead-acid, V. */
const cellV = 2

/**
 * Capacity of a battery at the load and temperature of a test, Ah. @param health remaining share of its capacity, 0
 * to 1
 */
const givesAh = ({ chemistry, ratedAh, amps, celsius }: DischargeTest, health: number): number =>
  chemistry === 'lfp'
    ? ratedAh * health * temperatureFactor(celsius)
    : leadCapacityAh(ratedAh * health, amps, celsius)

/** The deepest discharge that the voltage of the model allows before the usual floor, as a share. */
function deepest(voltsOf: (soc: number) => number, floorV: number): number {
  for (let i = 0; i <= points; i++) if (voltsOf(1 - i / points) <= floorV) return i / points
  return 1
}

/** Voltage by the share of its capacity that was taken. */
function voltsBy(test: DischargeTest, health: number): (taken: number) => number {
  const { chemistry, ratedAh, nominalV, amps, celsius } = test
  if (chemistry === 'lfp') {
    const ohm = typicalPackOhm(ratedAh, nominalV) * resistanceFactor(celsius)
    return (taken) => openCircuitV(1 - taken, nominalV) - amps * ohm
  }
  const c10 = (ratedAh * health) / c20OverC10
  const voltsOf = (soc: number): number => copettiDischargeV(amps, soc, c10, celsius) * (nominalV / cellV)
  // The capacity of lead-acid is its charge down to the usual floor: the curve ends there.
  const depth = deepest(voltsOf, usualFloorV(chemistry, nominalV))
  return (taken) => voltsOf(1 - taken * depth)
}

/** The voltage over a test, from full to the floor or empty. @param health remaining share of the capacity, 0 to 1 */
export function predictedDischarge(test: DischargeTest, health = 1): DischargePoint[] {
  const seconds = (3600 * givesAh(test, health)) / test.amps
  const voltsOf = voltsBy(test, health)
  const curve: DischargePoint[] = []
  for (let i = 0; i <= points; i++) {
    const volts = voltsOf(i / points)
    curve.push({ t: (seconds * i) / points, volts })
    if (volts <= test.floorV) break
  }
  return curve
}

/** How far a discharge is, or how it ended. */
interface Discharged {
  /** Charge that was taken, Ah. */
  readonly ah: number
  readonly seconds: number
  readonly meanA: number
  readonly isAtFloor: boolean
}

/** Readings in a row that end a test: one alone may be a disturbance. */
const endingReadings = 2

/** Counts the charge of a discharge up to its floor. Readings behind it are left out. */
export function countDischarge(readings: readonly Reading[], floorV: number): Discharged {
  let [coulombs, below] = [0, 0]
  for (const [i, { t, amps, volts }] of readings.entries()) {
    const last = readings[i - 1]
    if (last) coulombs += ((amps + last.amps) / 2) * (t - last.t)
    below = volts <= floorV ? below + 1 : 0
    if (below === endingReadings) return totalOf(coulombs, readings.slice(0, i + 1), true)
  }
  return totalOf(coulombs, readings, false)
}
function totalOf(coulombs: number, readings: readonly Reading[], isAtFloor: boolean): Discharged {
  const [first, last] = [readings[0], readings.at(-1)]
  const seconds = first && last ? last.t - first.t : 0
  // A shunt may be wired either way round.
  const ah = Math.abs(coulombs) / 3600
  return { ah, seconds, meanA: seconds > 0 ? Math.abs(coulombs) / seconds : 0, isAtFloor }
}

interface CapacityResult {
  /** As the label counts it: at 25 °C, and for lead-acid at the 20 h rate, Ah. */
  readonly ah: number
  /** Half width of the 95 % range, Ah. */
  readonly tolerance: number
  /** Whether the test ended before the floor: the battery has at least this. */
  readonly isLeast: boolean
}

const bisections = 60

/** The capacity on the label that gives so much at the load and temperature of a test, Ah. */
function labelAh(test: DischargeTest, ah: number): number {
  let [low, high] = [0, 10 * Math.max(test.ratedAh, ah)]
  for (let i = 0; i < bisections; i++) {
    const middle = (low + high) / 2
    if (givesAh({ ...test, ratedAh: middle }, 1) < ah) low = middle
    else high = middle
  }
  return (low + high) / 2
}

/** The capacity that a discharge shows, with its tolerance. Null while nothing was taken. */
export function capacityOf(test: DischargeTest, { ah, isAtFloor, meanA }: Discharged): CapacityResult | null {
  if (ah <= 0) return null
  const label = labelAh({ ...test, amps: meanA }, ah)
  return { ah: label, tolerance: 2 * deviationOf('counted', label), isLeast: !isAtFloor }
}

/** Worst and best health of a stand-in battery. */
const [leastHealth, mostHealth] = [0.6, 1.02]
const noise = { volts: 0.004, share: 0.004 }

/** A stand-in battery with a hidden capacity: its readings until it is empty, the same for the same seed. */
export function standInDischarge(test: DischargeTest, seed: number): Reading[] {
  const chance = chanceOf(seed)
  const health = leastHealth + (mostHealth - leastHealth) * chance()
  // It runs a little below the floor, as a load that nobody has switched off yet.
  const curve = predictedDischarge({ ...test, floorV: test.floorV - 0.2 }, health)
  return curve.map(({ t, volts }) => ({
    t,
    amps: -test.amps * (1 + noise.share * normal(chance)),
    volts: volts + noise.volts * normal(chance),
  }))
}
