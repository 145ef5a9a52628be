/** The harm of a hidden fault. */
export type Harm = 'fire' | 'damage' | 'stranded' | 'nuisance'

/**
 * How much each harm counts against the others, and why (engineering default). Fire outweighs the rest, because
 * people sleep aboard.
 */
export const harms: Readonly<Record<Harm, { readonly weight: number; readonly reason: string }>> = {
  fire: { weight: 100, reason: 'Hidden heat, or a current that no fuse interrupts.' },
  damage: { weight: 30, reason: 'It destroys a battery, an alternator or electronics.' },
  stranded: { weight: 10, reason: 'The engine does not start, or the house goes dark, without a warning.' },
  nuisance: { weight: 1, reason: 'Charging takes longer, or a display shows the wrong value.' },
}

/** Heat in one joint that chars its surroundings, W (engineering default). */
export const charsFromW = 10
/** Voltage drop that stops the units behind a joint, V of 12 (engineering default). */
const stopsFromV = 0.8

/**
 * The harm of a poor joint.
 * @param ohm its resistance, Ω
 * @param amps the largest current through it, A
 * @param nominalV of the system, V
 */
export function harmOfJoint(ohm: number, amps: number, nominalV: number): Harm {
  if (ohm * amps ** 2 >= charsFromW) return 'fire'
  return ohm * amps >= (stopsFromV * nominalV) / 12 ? 'stranded' : 'nuisance'
}

/** How likely it is that a fault of the list is there and not seen, and that one is that can cause a fire, 0 to 1. */
export interface Risk {
  readonly hidden: number
  readonly dangerous: number
}

/** Sums the chances of hypotheses up: of all that have a harm, and of those that can cause a fire. */
export function riskOf<H extends { readonly harm: Harm | null }>(
  hypotheses: readonly H[],
  chanceOf: (hypothesis: H & { readonly harm: Harm }, place: number) => number,
): Risk {
  let [hidden, dangerous] = [0, 0]
  hypotheses.forEach((hypothesis, place) => {
    if (!isHarmful(hypothesis)) return
    const chance = chanceOf(hypothesis, place)
    hidden += chance
    if (hypothesis.harm === 'fire') dangerous += chance
  })
  return { hidden, dangerous }
}
const isHarmful = <H extends { readonly harm: Harm | null }>(one: H): one is H & { readonly harm: Harm } =>
  one.harm !== null
