import { elementAt } from '#core/collections/held'

/**
 * Copper conductors: resistance at 20 °C in mΩ/m and current in A that a single one carries in free air at 30
 * °C by insulation rating. From the project's reference table, metric rows. Starting points for a check
 * against the local code and the maker's sheet.
 */
const insulationRatings = [60, 70, 90, 105, 125, 200] as const
const copper: readonly (readonly [areaMm2: number, r20: number, ...ampacityA: number[]])[] = [
  [0.75, 24.5, 6, 10, 12, 16, 20, 25],
  [1, 18.1, 8, 14, 18, 20, 25, 35],
  [1.5, 12.1, 12, 18, 21, 25, 30, 40],
  [2.5, 7.41, 17, 25, 30, 35, 40, 45],
  [4, 4.61, 22, 35, 40, 45, 50, 55],
  [6, 3.08, 29, 45, 50, 60, 70, 75],
  [10, 1.83, 40, 65, 70, 90, 100, 120],
  [16, 1.15, 54, 90, 100, 130, 150, 170],
  [25, 0.727, 71, 120, 140, 170, 185, 200],
  [35, 0.524, 87, 160, 185, 210, 225, 240],
  [50, 0.387, 105, 210, 230, 270, 300, 325],
  [70, 0.268, 135, 265, 285, 330, 360, 375],
  [95, 0.193, 165, 310, 330, 390, 410, 430],
  [120, 0.153, 190, 360, 400, 450, 480, 520],
  [150, 0.124, 220, 380, 430, 475, 520, 560],
]

/**
 * Straight line between neighbouring rows on log scales, where both resistance and ampacity are nearly
 * straight.
 */
function between(areaMm2: number, column: number): number {
  const above = Math.min(
    copper.length - 1,
    Math.max(
      1,
      copper.findIndex((row) => row[0] >= areaMm2),
    ),
  )
  const last = areaMm2 > elementAt(copper, copper.length - 1)[0] ? copper.length - 1 : above
  const [low, high] = [elementAt(copper, last - 1), elementAt(copper, last)]
  const share = Math.log(areaMm2 / low[0]) / Math.log(high[0] / low[0])
  return elementAt(low, column) * (elementAt(high, column) / elementAt(low, column)) ** share
}

/** Sizes in which cables are made, mm². */
export const cableSizesMm2: readonly number[] = copper.map(([areaMm2]) => areaMm2)

/** Resistance of copper at 20 °C, Ω/m, for an area in mm² (above 0). Exact at the table's sizes. */
export const copperOhmPerM = (areaMm2: number): number => between(areaMm2, 1) / 1000

/**
 * Current in A a single copper conductor carries in free air at 30 °C, by insulation rating in °C (the next
 * lower rating of the table counts).
 */
export function ampacityA(areaMm2: number, insulationC: number): number {
  const column = Math.max(
    0,
    insulationRatings.findLastIndex((rating) => rating <= insulationC),
  )
  return between(areaMm2, column + 2)
}

export interface Conductor {
  /** One-way length, m. */
  readonly lengthM: number
  readonly areaMm2: number
  readonly returnBy: 'cable' | 'chassis'
  readonly material?: 'copper' | 'aluminium'
}

/** Resistance of copper at a temperature as a multiple of that at 20 °C: 0.393 % a kelvin. */
export const copperFactor = (celsius: number): number => 1 + 0.00393 * (celsius - 20)

/** Resistance of aluminium against copper of the same area. */
const aluminiumFactor = 1.64

/** Resistance of a conductor one way at 20 °C, Ω. */
export const conductorOhm = ({ lengthM, areaMm2, material }: Omit<Conductor, 'returnBy'>): number =>
  copperOhmPerM(areaMm2) * lengthM * (material === 'aluminium' ? aluminiumFactor : 1)

/** Resistance of chassis or hull over a length in m, Ω: 1 mΩ + 0.2 mΩ/m, an engineering default. */
export const chassisOhm = (lengthM: number): number => 0.001 + 0.0002 * lengthM

/** Resistance of a run there and back at 20 °C, Ω; back by a cable of its size, or by chassis or hull. */
export function loopOhm(run: Conductor): number {
  const there = conductorOhm(run)
  return there + (run.returnBy === 'cable' ? there : chassisOhm(run.lengthM))
}

export interface Surroundings {
  /** Insulation rating, °C. */
  readonly insulationC: number
  readonly engineSpace: boolean
  /** Hottest air along it, °C. */
  readonly airC: number
  /** Loaded conductors in the bundle, itself included. */
  readonly bundled: number
  readonly material?: 'copper' | 'aluminium'
}

/** Air in which the ampacities of the table hold, °C. */
export const tableAirC = 30

/** Ampacity factor of air warmer than the table's: zero if it is as hot as the insulation's limit. */
const inAirShare = ({ insulationC, airC }: Surroundings): number =>
  airC <= tableAirC ? 1 : Math.sqrt(Math.max(0, insulationC - airC) / (insulationC - tableAirC))

/** Ampacity factor of an engine space, by insulation. */
function engineShare({ insulationC, engineSpace }: Surroundings): number {
  if (!engineSpace || insulationC >= 125) return 1
  if (insulationC >= 105) return 0.85
  return insulationC >= 85 ? 0.82 : 0.75
}

/**
 * Current a conductor carries where it lies, A: free-air ampacity, less in an engine space (0.75 to 1.00 by
 * insulation) or in air above 30 °C (√((T − air) / (T − 30)), T the insulation’s rating), whichever leaves less, and
 * in a bundle (2 to 3: 0.7, 4 to 6: 0.6, 7 to 24: 0.5); aluminium 0.78 of copper. Engineering defaults: always check
 * the local code.
 */
export function ampacityThereA(areaMm2: number, around: Surroundings): number {
  const { insulationC, bundled, material } = around
  const hot = Math.min(engineShare(around), inAirShare(around))
  const bundle = bundled >= 7 ? 0.5 : bundled >= 4 ? 0.6 : bundled >= 2 ? 0.7 : 1
  return ampacityA(areaMm2, insulationC) * hot * bundle * (material === 'aluminium' ? 0.78 : 1)
}
