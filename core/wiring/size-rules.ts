import type { FuseFamily } from '#core/physics/fuses'
import type { Network, Run } from './network'
import type { DraftRun } from './propose/builder'
import type { Design } from './solved'

/** Most of a fuse's rating that flows for hours, as a share of it. */
export const fuseShare = 0.8

/** Current during the seconds of a start, as a multiple of the ampacity (engineering default). */
const crankingFactor = 3
/** Thermal current of a run, A: the continuous current, or the equivalent of a start of some seconds. */
export const heatingA = ({ amps, crankingA }: Pick<Design, 'amps' | 'crankingA'>): number =>
  Math.max(amps, crankingA / crankingFactor)

/** Allowed voltage drops as shares, the grading of fuses, and the carried sizes. */
export interface SizeRules {
  /** To and from the sources that charge a battery directly. */
  readonly charging: number
  /** To a DC-DC. */
  readonly dcdc: number
  /** To all other loads. */
  readonly other: number
  /** To a starter motor. */
  readonly cranking: number
  /** The main fuse against the largest behind it, as a multiple of its rating. */
  readonly grading: number
  /** Cable sizes that the shop carries, mm², rising. */
  readonly sizesMm2: readonly number[]
  /** Most sizes of new cable in one job. */
  readonly mostSizes: number
  /** Fuse families that the shop carries; null for every family. */
  readonly families: readonly FuseFamily[] | null
}

/** Allowed voltage drop of a run as a share, by the unit at its end. */
export function dropShare(
  { role, of, side }: Run | DraftRun,
  { units }: Pick<Network, 'units'>,
  rules: SizeRules,
): number {
  if (role === 'cranking') return rules.cranking
  if (role !== 'charge' && role !== 'return') return rules.other
  const [unit] = units.filter((one) => one.of === of && of !== null && one.kind !== 'battery')
  if (unit?.kind === 'dcdc') return side === 'input' ? rules.dcdc : rules.charging
  return unit?.kind === 'load' || unit?.kind === 'inverter' ? rules.other : rules.charging
}
