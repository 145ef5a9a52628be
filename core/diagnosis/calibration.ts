import { elementAt, firstOf, lastOf, present } from '#core/collections/held'
import type { Chance } from '#core/commissioning/chance'
import type { Diagnosis } from './diagnosis'
import { harmOf } from './faults/fault'
import { otherId } from './cause-ids'
import { scaled, unscaled, type Cause } from './hypotheses'
import { drawnRig, withDrawnFault, StandIn } from './instruments'
import { economical } from './procedure'
import type { Risk } from '#core/commissioning/harm'

/** The likeliest cause of a search at one moment, and whether it was right. */
export interface Call {
  /** Whether that is a fault, and not that nothing is wrong. */
  readonly fault: boolean
  readonly probability: number
  readonly right: boolean
}

/** A cause drawn by its prior, with a random size in its range. */
function drawn(all: readonly Cause[], chance: Chance): { readonly cause: Cause; readonly size: number } {
  // An unlisted cause cannot be simulated.
  const causes = all.filter(({ id }) => id !== otherId)
  let left = chance() * causes.reduce((sum, { prior }) => sum + prior, 0)
  const cause = causes.find(({ prior }) => (left -= prior) < 0) ?? firstOf(causes)
  const { sizes, fault } = cause
  if (!fault || fault.scale === 'each')
    return { cause, size: elementAt(sizes, Math.floor(chance() * sizes.length)) }
  const [low, high] = [scaled(cause, firstOf(sizes)), scaled(cause, lastOf(sizes))]
  return { cause, size: unscaled(cause, low + chance() * (high - low)) }
}

/** The first call of each search in a band of probability. One per search, since later calls depend on it. */
export const firstCallsIn = (
  searches: readonly (readonly Call[])[],
  [from, to]: readonly [number, number],
): Call[] =>
  searches.flatMap((calls) => calls.find(({ probability }) => probability >= from && probability < to) ?? [])

/** The risk stated by the essential tests for a system drawn by the priors, and the truth. */
export interface Proved {
  /** Whether all of them read as they must. */
  readonly within: boolean
  readonly said: Risk
  readonly isFaulty: boolean
  readonly isDangerous: boolean
}

/** The essential tests on a system that may be sound or have any fault, each as likely as its prior says. */
export function provedOf(diagnosis: Diagnosis, chance: Chance): Proved {
  const { proof, causes, essential } = diagnosis
  const { cause, size } = drawn(causes, chance)
  const standIn = new StandIn(
    proof,
    drawnRig(proof, withDrawnFault(proof, cause, { size, chance }), chance),
    chance,
  )
  const readings = essential.tests.map((test) => ({ test, value: standIn.read(test) }))
  const { fault, at } = cause
  return {
    within: readings.every((reading) => diagnosis.isWithin(reading)),
    said: diagnosis.given(readings).risk(),
    isFaulty: fault !== null,
    isDangerous: fault !== null && harmOf(fault, proof.bench, present(at), size) === 'fire',
  }
}

/**
 * One search on a system that is sound or has any fault, drawn from the priors: the likeliest cause after each of
 * its readings. Of all calls at a probability, that share must be right.
 */
export function callsOf(diagnosis: Diagnosis, chance: Chance): Call[] {
  const { proof, causes } = diagnosis
  const { cause, size } = drawn(causes, chance)
  const standIn = new StandIn(
    proof,
    drawnRig(proof, withDrawnFault(proof, cause, { size, chance }), chance),
    chance,
  )
  let posterior = diagnosis.given([])
  return economical(diagnosis, standIn).posterior.taken.map((reading) => {
    posterior = posterior.with(reading)
    const top = firstOf(diagnosis.named(posterior))
    return {
      fault: firstOf(top.causes).fault !== null,
      probability: top.probability,
      right: top.causes.includes(cause),
    }
  })
}
