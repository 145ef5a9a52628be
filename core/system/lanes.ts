import type { PartPath } from '#core/job/document'
import { copperFactor, loopOhm } from '#core/physics/conductors'
import type { ShopRules } from '#core/rules/rules'
import type { Bank } from './bank'
import type { View } from './scene'

/** Stage-making units are read alike: mains charger, DC-DC or solar controller. */
export type ChargeUnit = View<'chargers'> | View<'links'> | View<'solar'>

/**
 * Voltage that temperature compensation adds to a unit's voltage at a temperature, V: lead-acid cells × coefficient
 * × (25 − T), and the count of cells.
 */
export function compensation(
  unit: ChargeUnit,
  bank: Bank,
  celsius: number,
): { readonly volts: number; readonly leadCells: number } {
  const leadCells = (6 * bank.nominalV) / 12
  return { leadCells, volts: (leadCells * unit.compensationMv * (25 - celsius)) / 1000 }
}

interface LaneBase {
  /** Path of the charger, the link, the array or the source: one lane each. */
  readonly id: PartPath
  readonly name: string
  readonly cables: readonly View<'conductors'>[]
}
export interface ChargerLane extends LaneBase {
  readonly kind: 'charger'
  readonly charger: View<'chargers'>
}
export interface AlternatorLane extends LaneBase {
  readonly kind: 'alternator'
  readonly alternator: View<'alternators'>
  /** The battery that is on this machine and turns its engine. */
  readonly starting: View<'startingBatteries'>
  readonly link: View<'links'>
}
export interface SolarLane extends LaneBase {
  readonly kind: 'solar'
  readonly solar: View<'solar'>
}
export interface SourceLane extends LaneBase {
  readonly kind: 'source'
  readonly source: View<'sources'>
}
/** A way by which charge reaches the house bank: a source, its link and its cables. */
export type Lane = ChargerLane | AlternatorLane | SolarLane | SourceLane

/** Resistance of one cable there and back, Ω, at the temperature at which the shop counts cables. */
export const loopOhmThere = (cable: View<'conductors'>, { cableC }: ShopRules): number =>
  loopOhm(cable) * copperFactor(cableC)

/** Resistance of a lane's cables there and back, Ω; the shop's figure where none is entered. */
export function cableOhm(lane: Lane, rules: ShopRules): number {
  if (lane.cables.length === 0) return rules.cableMohm / 1000
  return lane.cables.reduce((sum, cable) => sum + loopOhmThere(cable, rules), 0)
}

/** Hours a day in which a lane's source is there. */
export function hoursOf(lane: Lane, rules: ShopRules): number {
  switch (lane.kind) {
    case 'charger':
      return lane.charger.hours
    case 'alternator':
      return lane.alternator.driveHours
    case 'source':
      return lane.source.hours
    case 'solar':
      return rules.sunHours
  }
}

/** Voltage drop of a lane's diode isolator, V. */
export const isolatorDropV = ({ link }: AlternatorLane): number => (link.kind === 'diode' ? link.dropV : 0)

/** Whether an alternator reaches the bank without a DC-DC between. */
export const isStraight = ({ link }: AlternatorLane): boolean => link.kind !== 'dcdc' && link.kind !== 'none'

/** Whether a relay, isolator, switch or cable joins an alternator to a bank of another nominal voltage. */
export const joinsVoltages = (lane: AlternatorLane, bankV: number): boolean => {
  const alternatorV = lane.alternator.$entered('nominalV')
  return isStraight(lane) && alternatorV !== null && Number(alternatorV) !== bankV
}

/**
 * Units with charge stages of their own: every mains charger and solar controller, and the link that is a
 * DC-DC charger.
 */
export const isCharging = (unit: ChargeUnit): boolean => !('inputV' in unit) || unit.kind === 'dcdc'
