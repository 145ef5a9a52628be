import { availableA, type Speed } from './alternators'
import { cableOhm, isolatorDropV, type AlternatorLane, type Lane } from './lanes'
import type { View } from './scene'
import type { System } from './system'

/**
 * Current the bank would draw through a straight link if the alternator held its voltage, A: (Vreg − drop −
 * OCV) ÷ total resistance.
 */
export function demandA(lane: AlternatorLane, soc: number, { bank, rules }: System): number {
  return Math.max(
    0,
    (highestAlternatorV(lane.alternator) - isolatorDropV(lane) - bank.ocv(soc)) /
      (bank.ohm + cableOhm(lane, rules)),
  )
}

/**
 * Current straight through, A: the least of the demand, the supply, and the average of a duty-cycling relay.
 */
export const acceptanceA = (lane: AlternatorLane, soc: number, speed: Speed, system: System): number =>
  Math.min(
    demandA(lane, soc, system),
    availableA(lane.alternator, speed, system.rules),
    lane.link.kind === 'duty' ? lane.link.opensAboveA : Infinity,
  )

/** Highest voltage an alternator is held at for any length of time, V: its peaks where a computer controls it. */
export const highestAlternatorV = (alternator: View<'alternators'>): number =>
  alternator.regulator === 'computer' ? alternator.highestV : alternator.regulatorV

/**
 * Lowest voltage at which an alternator feeds a DC-DC for any length of time, V: its dips where a computer
 * controls it.
 */
export const feedingV = (alternator: View<'alternators'>): number =>
  alternator.regulator === 'computer' ? alternator.lowestV : alternator.regulatorV

/** Input of a DC-DC that is asked for its full output. */
export interface DcdcInput {
  /** Its current at that voltage, A. */
  readonly amps: number
  /** Voltage left at its terminals after the cable, V. */
  readonly volts: number
  /** Its continuous current, A: if the cable leaves it too little voltage, the current that just keeps it running. */
  readonly flowsA: number
  /** Its current once its cable keeps it running, A. */
  readonly runningA: number
}

/**
 * Input of a DC-DC at full output: I = V_out·I_out ÷ (η·V_in).
 * @param ohm of its cable there and back, Ω
 */
export function dcdcInput(
  lane: AlternatorLane,
  { rules }: System,
  ohm: number = cableOhm(lane, rules),
): DcdcInput {
  const watts = (lane.link.absorptionV * lane.link.ratedA) / (rules.dcdcEfficiency / 100)
  const source = feedingV(lane.alternator)
  // V² − V·source + P·R = 0; without a solution the cable cannot carry that power, and half the source is the
  // most it can keep.
  const volts = (source + Math.sqrt(Math.max(0, source * source - 4 * watts * ohm))) / 2
  const amps = watts / volts
  const lowestV = lane.link.lowestInputV
  const flowsA = volts < lowestV ? Math.max(0, source - lowestV) / ohm : amps
  return { amps, volts, flowsA, runningA: watts / Math.max(volts, lowestV) }
}

/**
 * Output of a DC-DC with this input current, A: from the voltage after the cable, through its efficiency, at its
 * absorption voltage.
 */
export function dcdcOutputA(
  lane: AlternatorLane,
  inputA: number,
  absorptionV: number,
  { rules }: System,
): number {
  const volts = Math.max(0, feedingV(lane.alternator) - inputA * cableOhm(lane, rules))
  return (volts * inputA * (rules.dcdcEfficiency / 100)) / absorptionV
}

/**
 * Coldest air around outside parts, °C: no warmer than the battery's place, nor, if nobody saw it, than the shop's
 * rule.
 */
export function coldestOutsideC({ one, rules }: System): number {
  const { place } = one
  const isAssumed = place.$origin('outsideC').kind === 'assumed'
  return Math.min(place.coldestC, place.outsideC, isAssumed ? rules.outsideColdC : Infinity)
}

/**
 * Open-circuit voltage of a string on the coldest bright morning, V, and as a multiple of the label's at 25
 * °C.
 */
export function coldOpenCircuitV(
  solar: View<'solar'>,
  coldestC: number,
): { readonly volts: number; readonly factor: number } {
  const factor = 1 + (solar.vocPerC / 100) * Math.max(0, 25 - coldestC)
  return { volts: solar.openCircuitV * solar.series * factor, factor }
}

/** Power on the label of an array, W. */
export const arrayW = (solar: View<'solar'>): number => solar.panelW * solar.series * solar.parallel

/**
 * Current an array gives a bank at a voltage in full sun, A, by its label: a PWM controller passes the panels'
 * own current whatever their watts, a tracking one makes amperes of the volts that are over.
 */
export const arrayA = (solar: View<'solar'>, bankV: number): number =>
  solar.controller === 'pwm' ? solar.maxPowerA * solar.parallel : arrayW(solar) / bankV

/** Largest current a lane can push into the bank, A. */
export function laneCurrentA(lane: Lane, system: System): number {
  if (lane.kind === 'charger') return lane.charger.ratedA
  if (lane.kind === 'source') return lane.source.largestA
  if (lane.kind === 'solar') return Math.min(lane.solar.ratedA, arrayA(lane.solar, system.bank.lowV))
  if (lane.link.kind === 'none') return 0
  return lane.link.kind === 'dcdc'
    ? lane.link.ratedA
    : acceptanceA(lane, system.rules.lowSoc / 100, 'cruise', system)
}
