import { number, word, type Judgement } from '#core/assessment/check'
import type { Origin } from '#core/system/facts'
import { tableAirC, type Surroundings } from '#core/physics/conductors'
import { mostInterruptA } from '#core/physics/fuses'
import type { RemedyRef } from '#core/remedies/catalogue'
import { listInSentence, joinText, type Write, nameInSentence } from '#core/units/format'

// One rule each for the current in a conductor, its fuse, the fuse's interrupting rating, sources at its ends, and
// its plug. The rules serve the cables of a survey, with currents from a lane, and the runs of a wiring, with
// currents from its solution.

/** Said wherever a size or a rating is given. */
export const localCode = (): string[] => [
  'Sizes and ratings are starting points: the local code and the makers’ sheets decide.',
]

/** The place of a conductor, after its size: `, 70 °C insulation, in the engine space`. */
export const aroundWords = (
  { insulationC, engineSpace, airC, bundled, material }: Surroundings,
  q: Write,
): string =>
  joinText(
    `, ${insulationC} °C insulation`,
    engineSpace ? ', in the engine space' : '',
    airC > tableAirC ? `, in air of ${q(airC, '°C')}` : '',
    bundled > 1 ? `, ${bundled} in a bundle` : '',
    material === 'aluminium' ? ', aluminium' : '',
  )

/** A conductor with its continuous current and its ampacity, A. */
export interface Conductor {
  readonly name: string
  readonly flowsA: number
  readonly carriesA: number
  readonly areaMm2: number
  /** Its size, insulation and where it lies: `6 mm², 70 °C insulation, in the engine space`. */
  readonly words: string
  readonly limit: Origin
}

type Remedies = () => readonly RemedyRef[]

/** The current against the ampacity of the conductor. @param most the case with the most current, in words */
export function currentIn(
  { name, flowsA, carriesA, areaMm2, words, limit }: Conductor,
  { most, remedies, q }: { readonly most: string; readonly remedies: Remedies; readonly q: Write },
): Judgement {
  const over = flowsA > carriesA
  return {
    verdict: over ? 'suits-once-changed' : 'suits',
    compared: [number('flows', flowsA, 'A'), number('carries', carriesA, 'A')],
    limit,
    formula: () => `${words}: ${q(carriesA, 'A')}; ${q(flowsA, 'A')} flow for hours${most}`,
    summary: () =>
      over
        ? joinText(
            `${name} carries ${q(flowsA, 'A')} for hours; `,
            `${q(areaMm2, 'mm²')} is rated ${q(carriesA, 'A')} there.`,
          )
        : `${name} is rated ${q(carriesA, 'A')} in this place and carries ${q(flowsA, 'A')}.`,
    remedies: over ? remedies : [],
    cautions: localCode,
  }
}

/** A fuse of a conductor. */
interface FuseOn {
  /** As it is called inside a sentence. */
  readonly name: string
  readonly ratedA: number
  /** Its continuous current, A: the rating, or for a new fuse the wanted share of it. */
  readonly holdsA: number
}

/**
 * Whether a fuse fails to protect its conductor or blows at the normal current: its rating must lie between the
 * two.
 */
export const isWrongFuse = (
  { flowsA, carriesA }: Conductor,
  { ratedA, holdsA }: FuseOn,
): 'too large' | 'too small' | null =>
  ratedA > carriesA ? 'too large' : flowsA > holdsA + 1e-6 ? 'too small' : null

/** A conductor without a fuse near the battery. */
export const unfused = (
  { name, carriesA, words }: Conductor,
  limit: Origin,
  remedies: Remedies,
  q: Write,
): Judgement => ({
  verdict: 'suits-once-changed',
  compared: [word('fuse', 'none'), number('conductor carries', carriesA, 'A')],
  limit,
  formula: () => `no fuse; ${words} carries ${q(carriesA, 'A')}`,
  summary: () => `${name} has no fuse near the battery. In a short nothing protects it.`,
  remedies,
  cautions: localCode,
})

function fuseWords(
  { name, flowsA, carriesA }: Conductor,
  fuse: FuseOn,
  wrong: ReturnType<typeof isWrongFuse>,
  q: Write,
): string {
  const rated = q(fuse.ratedA, 'A')
  switch (wrong) {
    case 'too large':
      return joinText(
        `The ${fuse.name} is ${rated}, but ${nameInSentence(name)} carries only ${q(carriesA, 'A')}. `,
        'In a short the cable burns before the fuse blows.',
      )
    case 'too small':
      return `${name} carries ${q(flowsA, 'A')} for hours. The ${fuse.name} is ${rated} and blows.`
    case null:
      return `The ${fuse.name} of ${rated} protects ${nameInSentence(name)}, which carries ${q(carriesA, 'A')}.`
  }
}

/** A fuse against the ampacity and the current of its conductor. */
export function fuseAgainst(
  conductor: Conductor,
  fuse: FuseOn,
  { rule, remedies, q }: { readonly rule: string; readonly remedies: Remedies; readonly q: Write },
): Judgement {
  const { flowsA, carriesA, words, limit } = conductor
  const { ratedA } = fuse
  const wrong = isWrongFuse(conductor, fuse)
  return {
    verdict: wrong ? 'suits-once-changed' : 'suits',
    compared:
      wrong === 'too small'
        ? [number('flows', flowsA, 'A'), number('fuse', ratedA, 'A')]
        : [number('fuse', ratedA, 'A'), number('conductor carries', carriesA, 'A')],
    limit,
    formula: () =>
      joinText(rule, `${q(flowsA, 'A')} flow; fuse ${q(ratedA, 'A')}; ${words} carries ${q(carriesA, 'A')}`),
    summary: () => fuseWords(conductor, fuse, wrong, q),
    remedies: wrong ? remedies : [],
    cautions: () =>
      wrong === null && flowsA > warmShare * ratedA
        ? [
            ...localCode(),
            'The fuse runs warm above 80 % of its rating. Fit one size larger if the conductor carries it.',
          ]
        : localCode(),
  }
}
/** A fuse runs warm from this share of its rating on (engineering default). */
const warmShare = 0.8

/** A plug in a conductor. */
interface PlugIn {
  readonly name: string
  readonly ratedA: number
  /** The largest conductor its contacts take, mm²; null if that is not told. */
  readonly mostMm2: number | null
  readonly limit: Origin
}

/** A plug against its current, the fuse before it and the conductor in its contacts. */
export function plugAgainst(
  { name, ratedA, mostMm2, limit }: PlugIn,
  { flowsA, fuseA, areaMm2 }: { readonly flowsA: number; readonly fuseA: number; readonly areaMm2: number },
  { remedies, q }: { readonly remedies: Remedies; readonly q: Write },
): Judgement {
  const over = Math.max(flowsA, fuseA) > ratedA
  const tooThick = mostMm2 !== null && areaMm2 > mostMm2
  const byFlow = flowsA > ratedA
  return {
    verdict: over || tooThick ? 'suits-once-changed' : 'suits',
    compared:
      tooThick && !over
        ? [number('conductor', areaMm2, 'mm²'), number('plug takes', mostMm2, 'mm²')]
        : [number(byFlow ? 'flows' : 'fuse', byFlow ? flowsA : fuseA, 'A'), number('plug', ratedA, 'A')],
    limit,
    formula: () =>
      joinText(
        `${q(flowsA, 'A')} flow, fuse ${q(fuseA, 'A')}, plug ${q(ratedA, 'A')}`,
        mostMm2 === null ? '' : `; ${q(areaMm2, 'mm²')} in contacts for ${q(mostMm2, 'mm²')}`,
      ),
    summary: () => {
      if (byFlow) return `${name} is rated ${q(ratedA, 'A')} and carries ${q(flowsA, 'A')}.`
      if (over)
        return `${name} is rated ${q(ratedA, 'A')} and its fuse is ${q(fuseA, 'A')}: the plug melts first.`
      return tooThick
        ? `${name} accepts ${q(mostMm2, 'mm²')}; the conductor is ${q(areaMm2, 'mm²')}.`
        : `${name} is rated ${q(ratedA, 'A')} and carries ${q(flowsA, 'A')}.`
    },
    remedies: over || tooThick ? remedies : [],
  }
}

/** A fuse with the short that it must interrupt. */
interface FuseInShort {
  /** As it is called inside a sentence. */
  readonly name: string
  readonly shortA: number
  readonly interruptsA: number
  /** The highest voltage there, V. */
  readonly volts: number
  readonly limit: Origin
}

/**
 * A fuse against the current of a short. If a family of fuses interrupts it, that family is fitted; if none does,
 * the battery does not suit.
 * @param short place of the short and its sources, in words
 * @param sterner the remedies by which a fuse of a sterner family is fitted
 */
export function interruptAgainst(
  { name, shortA, interruptsA, volts, limit }: FuseInShort,
  {
    short,
    sterner,
    q,
  }: {
    readonly short: { readonly at: string; readonly formula: () => string }
    readonly sterner: Remedies
    readonly q: Write
  },
): Judgement {
  const over = shortA > interruptsA
  const isInterrupted = shortA <= mostInterruptA(volts)
  return {
    verdict: !over ? 'suits' : isInterrupted ? 'suits-once-changed' : 'does-not-suit',
    compared: [number('short-circuit current', shortA, 'A'), number('fuse interrupts', interruptsA, 'A')],
    limit,
    formula: () => `${short.formula()} ${over ? '>' : '≤'} ${q(interruptsA, 'A')}`,
    summary: () =>
      joinText(
        `A short ${short.at} delivers ${q(shortA, 'A')}, and ${name} interrupts ${q(interruptsA, 'A')}`,
        !over
          ? ''
          : isInterrupted
            ? ', which is too little'
            : '. That is too little, and no fuse family interrupts it',
        '.',
      ),
    remedies: !over ? [] : isInterrupted ? sterner() : [{ id: 'battery.other', on: 'candidate' }],
    cautions: localCode,
  }
}

/** A conductor in which something feeds a fault from an end other than the one at which its fuse is sized. */
interface FedConductor {
  readonly name: string
  /** Sources of a fault in it, as a noun inside a sentence. */
  readonly fedBy: readonly string[]
  /** The sources among them without a fuse on their way. */
  readonly unfused: readonly string[]
  readonly limit: Origin
}

/** Whether a conductor has a fuse towards whatever feeds a fault in it. */
export function fusedTowards(
  { name, fedBy, unfused, limit }: FedConductor,
  { remedies }: { readonly remedies: Remedies },
): Judgement {
  const isFused = unfused.length === 0
  return {
    verdict: isFused ? 'suits' : 'suits-once-changed',
    compared: [
      word('fed by', listInSentence(fedBy)),
      word('no fuse towards', listInSentence(unfused) || 'none'),
    ],
    limit,
    formula: () =>
      joinText(
        `${listInSentence(fedBy)} can feed a fault in it; `,
        `without a fuse in between: ${listInSentence(unfused) || 'none'}`,
      ),
    summary: () =>
      isFused
        ? `${name} has a fuse at each end.`
        : `${name} has no fuse where ${listInSentence(unfused)} can feed a fault.`,
    remedies: isFused ? [] : remedies,
    cautions: localCode,
  }
}
