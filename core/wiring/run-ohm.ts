import { chassisOhm, conductorOhm, copperFactor } from '#core/physics/conductors'
import type { Run } from './network'

/** Resistance of a run with its fitting, Ω: measured, or calculated from size and length. */
export const runOhm = (run: Run, cableC: number): number => run.measuredOhm ?? sizedOhm(run, cableC)

/** How much conductor a run is: the area of each, mm², and how many lie side by side; null if the chassis is it. */
export type Conductors = Pick<Run, 'areaMm2' | 'count'>

/** Resistance of conductors alone, Ω, at the temperature at which the shop counts cables, °C. */
export function conductorsOhm(
  {
    lengthM,
    material,
    areaMm2,
    count,
    shortestM,
  }: Pick<Run, 'lengthM' | 'material' | 'shortestM'> & Conductors,
  cableC: number,
): number {
  if (areaMm2 === null) return chassisOhm(lengthM)
  const alike = conductorOhm({ lengthM, areaMm2, material }) * copperFactor(cableC)
  return alike / equivalentConductors({ lengthM, count, shortestM })
}

type SideBySide = Pick<Run, 'lengthM' | 'count' | 'shortestM'>

/** As how many conductors of the whole length the shortest of them counts. */
const shortestAs = ({ lengthM, count, shortestM }: SideBySide): number =>
  shortestM !== null && count > 1 && shortestM < lengthM ? lengthM / shortestM : 1

/** As how many conductors of the whole length those side by side count: a shorter one counts for more. */
const equivalentConductors = (run: SideBySide): number => run.count - 1 + shortestAs(run)

/** Share of the current of a run that the hardest worked of its conductors carries, 0 to 1. */
export const largestShare = (run: SideBySide): number => shortestAs(run) / equivalentConductors(run)

/** Resistance of a clean bolted stud, Ω (engineering default). */
const studOhm = 20e-6

/** Resistance of a run with the fitting it comes to, Ω, by size and length alone. */
export function sizedOhm(
  run: Run,
  cableC: number,
  { areaMm2, count }: Conductors = run,
  lengthM = run.lengthM,
): number {
  if (run.isStud) return studOhm + run.fittingOhm
  const { material, shortestM } = run
  const ohm = conductorsOhm({ lengthM, material, areaMm2, count, shortestM }, cableC)
  return areaMm2 === null ? ohm : ohm + run.fittingOhm
}

/** Resistance of a run with another size or length, Ω. A measured value applies only to the fitted size. */
export const ohmAtSize = (run: Run, size: Conductors, cableC: number, lengthM = run.lengthM): number =>
  (size.areaMm2 === run.areaMm2 && size.count === run.count ? run.measuredOhm : null) ??
  sizedOhm(run, cableC, size, lengthM)

/** Whether a return gets the size of its run: not if it is the chassis or was set by hand. */
export const takesRunSize = ({ areaMm2, areaKnown }: Run): boolean => areaMm2 !== null && areaKnown !== 'set'
