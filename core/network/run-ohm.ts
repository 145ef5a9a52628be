import { chassisOhm, conductorOhm, copperFactor } from '#core/physics/conductors'
import type { Run } from './network'

/** Resistance of a run with the fitting it comes to, Ω: as it was measured, else by its size and length. */
export const runOhm = (run: Run, cableC: number): number => run.measuredOhm ?? sizedOhm(run, cableC)

/** The same by its size and length alone, at the temperature at which the shop counts cables. */
export function sizedOhm(
  {
    areaMm2,
    lengthM,
    count,
    material,
    fittingOhm,
  }: Pick<Run, 'areaMm2' | 'lengthM' | 'count' | 'material' | 'fittingOhm'>,
  cableC: number,
): number {
  if (areaMm2 === null) return chassisOhm(lengthM)
  return (conductorOhm({ lengthM, areaMm2, material }) / count) * copperFactor(cableC) + fittingOhm
}

/** How much conductor a run is: the area of each, mm², and how many lie side by side. */
export type Conductors = Pick<Run, 'areaMm2' | 'count'>

/** Resistance of a run were it of another size, Ω: what was measured holds for the size that is there. */
export const ohmAtSize = (run: Run, size: Conductors, cableC: number): number =>
  size.areaMm2 === run.areaMm2 && size.count === run.count
    ? runOhm(run, cableC)
    : sizedOhm({ ...run, ...size }, cableC)

/** Whether a return is laid with the run it comes back for: not where the chassis is it, nor where it was set by hand. */
export const isLaidWithItsRun = ({ areaMm2, areaKnown }: Run): boolean =>
  areaMm2 !== null && areaKnown !== 'set'
