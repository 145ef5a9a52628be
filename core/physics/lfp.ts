import { elementAt } from '#core/collections/held'
import { along, type Curve } from './curve'

/**
 * Rested open-circuit voltage of an LFP cell at 25 °C against state of charge, mean of charge and discharge.
 * From the project's reference table of typical figures; a maker's curve may replace it.
 */
const ocvCurve: Curve = [
  [0, 2.5],
  [0.01, 2.7],
  [0.02, 2.85],
  [0.04, 3],
  [0.07, 3.1],
  [0.1, 3.18],
  [0.15, 3.21],
  [0.2, 3.235],
  [0.3, 3.265],
  [0.4, 3.285],
  [0.5, 3.29],
  [0.6, 3.3],
  [0.65, 3.31],
  [0.7, 3.325],
  [0.8, 3.33],
  [0.9, 3.335],
  [0.95, 3.34],
  [0.98, 3.355],
  [0.99, 3.375],
  [0.995, 3.4],
  [1, 3.45],
]

/** A maker's own curve, rising in both: state of charge, 0 to 1, and rested cell voltage, V. */
export type OcvCurve = Curve

/** Cells in series in a pack of trade nominal 12 V; a 24 V pack has twice as many. */
const cellsPer12V = 4
const cellsIn = (nominalV: number): number => (cellsPer12V * nominalV) / 12

/** Voltage at rest by another curve than the usual one, V for the pack. */
export const openCircuitBy = (curve: OcvCurve, soc: number, nominalV: number): number =>
  cellsIn(nominalV) * along(curve, soc)

/**
 * Open-circuit voltage of a pack, V.
 * @param soc state of charge, 0 to 1; held to that range
 * @param nominalV trade nominal voltage of the pack, V (12, 24, 48)
 */
export const openCircuitV = (soc: number, nominalV: number): number => openCircuitBy(ocvCurve, soc, nominalV)

const ocvInverse: Curve = ocvCurve.map(([soc, cellV]) => [cellV, soc])

/** State of charge (0 to 1) at which a pack rests at a voltage; the ends of the curve outside it. */
export const socAtOpenCircuitV = (packV: number, nominalV: number): number =>
  along(ocvInverse, packV / cellsIn(nominalV))

/**
 * Typical resistance of a pack with its BMS and terminals at 25 °C, Ω: 12 mΩ for 100 Ah at 12 V, falling with
 * capacity and growing with voltage.
 * @param ah capacity, Ah (above 0)
 */
export const typicalPackOhm = (ah: number, nominalV: number): number => (0.012 * (100 / ah) * nominalV) / 12

export interface ConstantVoltageCharge {
  /** Voltage the source holds, V. */
  readonly volts: number
  /** Largest current of the source, A (above 0). */
  readonly limitA: number
  /** Hours it holds that voltage once reached. */
  readonly holdH: number
  /** State of charge at the start, 0 to 1. */
  readonly fromSoc: number
  readonly ah: number
  readonly nominalV: number
  /** Pack and cable resistance, Ω (above 0). */
  readonly ohm: number
}

/**
 * State of charge reached by a constant-current, constant-voltage charge, 0 to 1. Constant current runs until
 * the pack's terminals reach `volts`; from there the current is (volts − OCV) ÷ R. On each straight piece of
 * the OCV curve the current falls exponentially, so the time through a piece has a closed form and no
 * stepping is needed.
 */
export function socAfterCharge(charge: ConstantVoltageCharge): number {
  const { volts, limitA, fromSoc, ah, nominalV, ohm } = charge
  let soc = Math.min(1, Math.max(fromSoc, socAtOpenCircuitV(volts - limitA * ohm, nominalV)))
  let hours = charge.holdH
  for (let i = 1; i < ocvCurve.length && hours > 0; i++) {
    const end = elementAt(ocvCurve, i)[0]
    if (end <= soc) continue
    const startA = (volts - openCircuitV(soc, nominalV)) / ohm
    if (startA <= 0) break
    const slope = (openCircuitV(end, nominalV) - openCircuitV(soc, nominalV)) / ((end - soc) * ah)
    const tau = ohm / slope
    const endA = startA - (slope * (end - soc) * ah) / ohm
    const through = endA > 0 ? tau * Math.log(startA / endA) : Infinity
    if (through > hours) return soc + (startA * tau * (1 - Math.exp(-hours / tau))) / ah
    soc = end
    hours -= through
  }
  return soc
}

/**
 * Usable share of an LFP battery by cell temperature; straight lines between, level outside. From the
 * project's domain figures.
 */
const temperatureCurve: Curve = [
  [-20, 0.6],
  [-10, 0.75],
  [0, 0.88],
  [10, 0.95],
  [25, 1],
]

/** Remaining share of an LFP battery's capacity at a cell temperature, 0.6 to 1. */
export const temperatureFactor = (celsius: number): number => along(temperatureCurve, celsius)

/** Resistance at a cell temperature as a multiple of that at 25 °C: exp(2500·(1/T − 1/298.15)), T in kelvin. */
export const resistanceFactor = (celsius: number): number =>
  Math.exp(2500 * (1 / (celsius + 273.15) - 1 / 298.15))

/** From this charge on a lithium battery counts as full, 0 to 1. */
export const fullSoc = 0.995

/** Heat capacity of a battery, J/(kg·K): an engineering default. */
const joulePerKgK = 1000
/** Weight to which the heat resistances below belong, kg. */
const referenceKg = 24
/** Heat resistance of a battery bare in air and in a closed box, K/W: engineering defaults. */
const bareKPerW = 1
const boxedKPerW = 2.5

interface BatteryHeat {
  /** Heat capacity, J/K. */
  readonly joulePerK: number
  /** Heat resistance to its place, K/W. */
  readonly kPerW: number
}

/**
 * How a battery holds and loses heat.
 * @param kg weight of the whole bank, kg (above 0)
 * @param boxed whether it stands in a closed box
 */
export const batteryHeat = (kg: number, boxed: boolean): BatteryHeat => ({
  joulePerK: kg * joulePerKgK,
  kPerW: ((boxed ? boxedKPerW : bareKPerW) * referenceKg) / kg,
})

/** A battery heater switches off this many degrees above the temperature at which it starts, K. */
export const heaterSpanK = 4

/** Share of the charge current of an LFP battery that can be drawn again. */
export const coulombicEfficiency = 0.995
