import { elementAt, fieldOf, present, withId } from '#core/collections/held'
import type { Cause } from './hypotheses'
import { chanceOf, normal } from '#core/commissioning/chance'
import { drawnRig, withDrawnFault, StandIn } from './instruments'
import { deviationOf, shown } from '#core/commissioning/meters'
import type { Proof } from '#core/commissioning/predict'
import { caseC, heatMinutes, loadOfMachineA } from '#core/commissioning/tests/engine'
import { unitsOf } from '#core/commissioning/rig'
import type { ProofTest } from '#core/commissioning/tests/test'

/** A continuous reading: seconds since its start, and the value. */
export interface Streamed {
  readonly t: number
  readonly value: number
}

/** Readings of a meter held at a test: count and spacing. */
const held = { count: 24, everyS: 0.5 } as const
/** A case is read so often while it warms, s. */
const caseEveryS = 15
/** A meter wanders while it is held, as a share of its own deviation. */
const driftShare = 0.4

/** The fault that a seed hides. */
export function hiddenCause(causes: readonly Cause[], seed: number): { cause: Cause; size: number } {
  const chance = chanceOf(seed)
  const faults = causes.filter(({ fault }) => fault !== null)
  const cause = elementAt(faults, Math.floor(chance() * faults.length))
  return { cause, size: elementAt(cause.sizes, Math.floor(chance() * cause.sizes.length)) }
}

/** Simulated instruments on a job: random by a seed, with a fault hidden by the seed, or without. */
function standInOf(
  proof: Proof,
  causes: readonly Cause[],
  { seed, hidden }: { readonly seed: number; readonly hidden: boolean },
): StandIn {
  const { cause, size } = hiddenCause(causes, seed)
  const rig = hidden ? withDrawnFault(proof, cause, { size, chance: chanceOf(seed + 3) }) : proof.rig
  return new StandIn(proof, drawnRig(proof, rig, chanceOf(seed + 1)), chanceOf(seed + 2))
}

/** Readings of an instrument at a test: noise, drift and class; a case warms over half an hour. */
export function standInStream(
  proof: Proof,
  causes: readonly Cause[],
  test: ProofTest,
  which: { readonly seed: number; readonly hidden: boolean },
): Streamed[] {
  const standIn = standInOf(proof, causes, which)
  const chance = chanceOf(which.seed + test.id.length)
  const is = standIn.truthOf(test)
  if (test.quantity === 'celsius') return caseStream(proof, standIn, test, chance)
  const deviation = deviationOf(test.instrument, is)
  const wanders = normal(chance) * deviation * driftShare
  return Array.from({ length: held.count }, (_, i) => {
    const drifted = wanders * (i / held.count)
    const noise = normal(chance) * deviation * (test.quantity === 'answer' ? 0 : 0.5)
    return { t: i * held.everyS, value: shown(test.instrument, is + drifted + noise) }
  })
}

function caseStream(proof: Proof, standIn: StandIn, test: ProofTest, chance: () => number): Streamed[] {
  const id = test.id.replace(/^case-/, '')
  const { rig } = standIn
  const machine = withId(unitsOf(rig.network, 'alternator'), id)
  const [leadA] = proof.seen(rig, test)
  const heat = fieldOf(rig.heat, id)
  const count = (heatMinutes * 60) / caseEveryS
  return Array.from({ length: count + 1 }, (_, i) => {
    const is = caseC(heat, loadOfMachineA(present(leadA), machine), (i * caseEveryS) / 60)
    const noise = 0.3 * normal(chance) * deviationOf(test.instrument, is)
    return { t: i * caseEveryS, value: shown(test.instrument, is + noise) }
  })
}
