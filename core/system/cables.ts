import {
  ampacityThereA,
  cableSizesMm2,
  copperFactor,
  loopOhm,
  type Surroundings,
} from '#core/physics/conductors'
import { fuseSizesA, type FuseFamily } from '#core/physics/fuses'
import { dcdcInput, laneCurrentA } from './currents'
import { inverterA } from './energy'
import { isStraight, type Lane } from './lanes'
import type { View } from './scene'
import type { System } from './system'

type Cable = View<'conductors'>

/** Whether a cable runs through the engine space: as it was followed, else where it ends at an alternator. */
function isInEngineSpace(cable: Cable): boolean {
  const followed = cable.$entered('engineSpace')
  if (followed !== null) return followed === 'yes'
  return cable.fromPost === 'alternator' || cable.toPost === 'alternator'
}

/** The place of a cable. */
export const surroundingsOf = (cable: Cable): Surroundings => ({
  insulationC: Number(cable.insulationC),
  engineSpace: isInEngineSpace(cable),
  airC: cable.airC,
  bundled: cable.bundled,
  material: cable.material,
})

/** Current a cable of an area would carry where this one lies, A. */
export const wouldCarryA = (cable: Cable, areaMm2: number): number =>
  ampacityThereA(areaMm2, surroundingsOf(cable))

/** Current a cable carries where it lies, A. */
export const cableAmpacityA = (cable: Cable): number => wouldCarryA(cable, cable.areaMm2)

/** The family of the fuse nearest the battery; null if there is no fuse. A rating that was read is that of a fuse. */
export function nearFuseFamily(cable: Cable): FuseFamily | null {
  if (cable.fuseKind !== 'none') return cable.fuseKind
  return cable.$entered('fuseA') === null ? null : 'class-t'
}

/** Rating of the fuse nearest the battery, A; 0 where there is no fuse. */
export const nearFuseA = (cable: Cable): number => (nearFuseFamily(cable) === null ? 0 : cable.fuseA)

/** The smallest usual size that carries a current where a cable lies, mm²; null if none does. */
export const sizeToCarry = (cable: Cable, amps: number): number | null =>
  cableSizesMm2.find((areaMm2) => wouldCarryA(cable, areaMm2) >= amps) ?? null

/** The smallest usual size at which a cable has no more than a resistance there and back, mm²; null if none has. */
export function sizeForOhm(
  { lengthM, returnBy, material }: Cable,
  ohm: number,
  celsius: number,
): number | null {
  const ohmAt = (areaMm2: number): number =>
    loopOhm({ lengthM, areaMm2, returnBy, material }) * copperFactor(celsius)
  return cableSizesMm2.find((areaMm2) => ohmAt(areaMm2) <= ohm) ?? null
}

/** The largest usual fuse up to a current, A; null if there is none so small. */
export const fuseUpTo = (amps: number): number | null => fuseSizesA.findLast((size) => size <= amps) ?? null
/** The smallest usual fuse from a current on, A; null if there is none so large. */
export const fuseFrom = (amps: number): number | null => fuseSizesA.find((size) => size >= amps) ?? null

const atStarting = new Set(['starting', 'alternator'])
/** Whether a cable is on the engine's side of a link. */
export const onEngineSide = ({ fromPost, toPost }: Cable): boolean =>
  atStarting.has(fromPost) || atStarting.has(toPost)

/** Largest current that flows in a cable for hours, A; null if it serves nothing that tells. */
export function flowsA(cable: Cable, system: System): number | null {
  const lane = system.lanes.find(({ id }) => id === cable.$of)
  if (lane) return laneFlowsA(cable, lane, system)
  const inverter = system.many.inverters.find(({ $path }) => $path === cable.$of)
  return inverter ? inverterA(inverter, system) : null
}

/** A cable of a DC-DC of which nobody says on which side it lies is taken to carry the larger current. */
function laneFlowsA(cable: Cable, lane: Lane, system: System): number {
  if (lane.kind !== 'alternator' || isStraight(lane)) return laneCurrentA(lane, system)
  if (lane.link.kind === 'none') return 0
  const inputA = dcdcInput(lane, system).flowsA
  if (onEngineSide(cable)) return inputA
  return cable.fromPost === 'link' || cable.toPost === 'link'
    ? lane.link.ratedA
    : Math.max(inputA, lane.link.ratedA)
}

/**
 * Sources of a fault at the far end of a cable, in words; null if none gives more than the cable's ampacity.
 */
export function feedsFarEnd(cable: Cable, system: System): string | null {
  const lane = system.lanes.find(({ id }) => id === cable.$of)
  if (!lane || lane.kind === 'solar') return null
  const most = cableAmpacityA(cable)
  if (lane.kind === 'charger') return lane.charger.ratedA > most ? 'the charger' : null
  if (lane.kind === 'source') return lane.source.largestA > most ? 'the generator' : null
  const { link, starting, alternator } = lane
  const reachesBack =
    link.kind === 'dcdc' ? onEngineSide(cable) : link.kind !== 'diode' && link.kind !== 'none'
  if (reachesBack && starting.present === 'yes' && link.kind !== 'direct') return 'the starting battery'
  if (link.kind === 'dcdc' && !onEngineSide(cable)) return link.ratedA > most ? 'the DC-DC' : null
  return link.kind !== 'none' && alternator.ratedA > most ? 'the alternator' : null
}
