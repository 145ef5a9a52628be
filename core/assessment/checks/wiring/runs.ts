import { entryOf, present } from '#core/collections/held'
import { inSentence, joinText, nameInSentence, type Write } from '#core/units/format'
import { check, number, word, type Judgement, type Subjects } from '#core/assessment/check'
import { cableSizesMm2 } from '#core/physics/conductors'
import { fuseSizesA } from '#core/physics/fuses'
import type { Conductors } from '#core/wiring/run-ohm'
import type { Post, Run } from '#core/wiring/network'
import { mostConductors, runAmpacityA } from '#core/wiring/size'
import { fuseShare, heatingA } from '#core/wiring/size-rules'
import { isSizeUnknown } from '#core/wiring/words'
import { wiringIn, type Wiring } from '#core/wiring/wiring'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { System } from '#core/system/system'
import { lessCurrentIn } from './less-current'
import { Way } from './way'
import {
  aroundWords,
  currentIn,
  fuseAgainst,
  fusedTowards,
  isWrongFuse,
  localCode,
  type Conductor,
} from '../conductor/conductor'

interface Wire {
  readonly wiring: Wiring
  readonly run: Run
  readonly areaMm2: number
  /** Continuous, or for a run that turns an engine, the equivalent of its seconds. */
  readonly amps: number
  readonly carries: number
}

/** A run that has a size to check: null for the chassis. */
function sizedWireOf({ id }: Subjects['run'], system: System): Wire | null {
  const wiring = wiringIn(system)
  const run = wiring.ways.run(id)
  if (!run || run.areaMm2 === null) return null
  return {
    wiring,
    run,
    areaMm2: run.areaMm2,
    amps: heatingA(wiring.design(run)),
    carries: runAmpacityA(run, run.areaMm2, run.count),
  }
}

/**
 * A run that can be checked: not the chassis, and not an existing conductor of unknown size, which carries the same
 * current as before.
 */
function wireOf(subject: Subjects['run'], system: System): Wire | null {
  const wire = sizedWireOf(subject, system)
  return wire && !isSizeUnknown(wire.run) ? wire : null
}

/** The smallest usual size that does; beyond the largest, several side by side. */
function sizeThat(does: (size: Conductors) => boolean, { run }: Wire): RemedyRef[] {
  for (let count = 1; count <= mostConductors; count++) {
    const value = cableSizesMm2.find((areaMm2) => does({ areaMm2, count }))
    // A cable of the survey is replaced whole, beyond a plug too.
    if (value !== undefined && run.cable !== null && count === 1)
      return [{ id: 'cable.thicker', on: run.cable, value }]
    if (value !== undefined)
      return [
        {
          id: 'run.thicker',
          on: `runs/${run.id}`,
          value,
          ...(count > run.count ? { values: { count } } : {}),
        },
      ]
  }
  return []
}

const sizeWords = ({ run, areaMm2 }: Wire, { q }: System): string =>
  joinText(
    isSizeUnknown(run) ? 'needs ' : '',
    run.count > 1 ? `${run.count} × ` : '',
    q(areaMm2, 'mm²'),
    aroundWords(run, q),
  )

const caseWords = ({ wiring, run }: Wire): string => {
  const reason = wiring.reasonOf(run)
  if (!reason) return ''
  return wiring.design(run).at ? `; most in “${reason}”` : `; ${inSentence(reason)}`
}

const ampacity = check({
  id: 'wiring.ampacity',
  title: 'Current in the run',
  about: 'run',
  takesTime: true,
  why: 'A conductor too thin for its current gets hot out of sight, and its insulation burns.',
  judge(subject, system) {
    const wire = wireOf(subject, system)
    if (!wire) return null
    return currentIn(conductorOf(subject, wire, system), {
      most: caseWords(wire),
      remedies: () => sizeThat((size) => carriesWhatFlows(wire, size), wire),
      q: system.q,
    })
  },
})

/**
 * Whether a run of another size carries its current then. If the newly sized run would not carry it, no size is
 * tried: this is calculated once for all sizes.
 */
const carriesWith = ({ wiring, run }: Wire, size: Conductors, mustA: (other: Wiring) => number): boolean => {
  const carries = size.areaMm2 === null ? 0 : runAmpacityA(run, size.areaMm2, size.count)
  return [null, size].every((one) => carries >= mustA(wiring.replaced(run, one)))
}
const carriesWhatFlows = (wire: Wire, size: Conductors): boolean =>
  carriesWith(wire, size, (other) => heatingA(other.design(wire.run)))

const conductorOf = ({ name }: Subjects['run'], wire: Wire, system: System): Conductor => ({
  name,
  flowsA: wire.amps,
  carriesA: wire.carries,
  areaMm2: wire.areaMm2,
  words: sizeWords(wire, system),
  limit: { kind: 'computed', text: 'table of ampacities, where the run lies' },
})

/** That no more flows in a run, where the inverter on it is held back. */
function limitedWords({ wiring, run }: Wire, q: System['q']): string {
  const unit = wiring.heldBackBy(run)
  return unit
    ? ` More does not flow: ${nameInSentence(unit.name)} is down to ${q(unit.lowestV, 'V')}, where it stops.`
    : ''
}

/** Voltage at a DC-DC at the end of a run, in each case of the engine: `12.9 V at cruise`. */
function leftAtDcdc({ run, wiring }: Wire, { q }: System): string {
  const ends = wiring.ways.wayOf(run).flatMap(({ from, to }) => [from, to])
  const unit = wiring.network.units.find((one) => one.kind === 'dcdc' && ends.includes(one.inPlus))
  if (unit?.kind !== 'dcdc') return ''
  const left = wiring.solved.cases
    .filter(({ kind }) => kind === 'engine')
    .map((at) => {
      const { volts } = wiring.solved.in(at)
      return joinText(
        `${q(entryOf(volts, unit.inPlus) - entryOf(volts, unit.inMinus), 'V')} `,
        `${at.id === 'idle' ? 'at idle' : 'at cruise'}`,
      )
    })
  return left.length > 0
    ? `; left at the DC-DC: ${left.join(', ')}, it runs from ${q(unit.lowestInputV, 'V')}`
    : ''
}

/** A return that was set by hand. */
const returnWords = ({ areaMm2, lengthM }: Run, q: Write): string =>
  `, back ${areaMm2 === null ? '' : `${q(areaMm2, 'mm²')}, `}${q(lengthM, 'm')}`

const drop = check({
  id: 'wiring.drop',
  title: 'Voltage lost on the way',
  about: 'run',
  takesTime: true,
  why: joinText(
    'Lost voltage becomes heat. A charger never finishes, ',
    'a DC-DC stops, or a radio fails when it transmits.',
  ),
  judge(subject, system) {
    const wire = sizedWireOf(subject, system)
    if (!wire || wire.run.returnOf !== null || wire.run.role === 'bond') return null
    const { q } = system
    const { wiring, run } = wire
    const way = new Way(run, wiring, system)
    if (way.amps < 0.05 || !way.isJudgedHere) return null
    // An existing run of unknown size counts as the size it needs, if someone set how its current returns.
    if (isSizeUnknown(run) && way.returnsByHand.length === 0) return null
    const { nominalV } = wiring.ways.postAt(run.from)
    const share = wiring.dropShare(run)
    const mostV = share * nominalV
    const { lostV } = way
    const over = lostV > mostV + 1e-9
    return {
      verdict: over ? 'suits-once-changed' : 'suits',
      compared: [number('lost', lostV, 'V'), number('at most', mostV, 'V')],
      limit: { kind: 'rule', text: `shop rule: ${Math.round(share * 1000) / 10} % of ${nominalV} V` },
      formula: () =>
        joinText(
          `${q(way.lengthM, 'm')} ${way.hasReturn ? 'there and back' : 'one way'}, `,
          `${sizeWords(wire, system)}`,
          ...way.returnsByHand.map((back) => returnWords(back, q)),
          ': ',
          `${q(way.ohm() * 1000, 'mΩ')} × ${q(way.amps, 'A')} = ${q(lostV, 'V')}`,
          `, ${Math.round((lostV / nominalV) * 1000) / 10} %${caseWords(wire)}${leftAtDcdc(wire, system)}`,
        ),
      summary: () =>
        over
          ? joinText(
              `${subject.name} loses ${q(lostV, 'V')} at ${q(way.amps, 'A')}; ${q(mostV, 'V')} are allowed.`,
              limitedWords(wire, q),
            )
          : `${subject.name} loses ${q(lostV, 'V')} of ${q(nominalV, 'V')} at ${q(way.amps, 'A')}.`,
      remedies: over
        ? () => [
            ...sizeThat((size) => way.keepsWithinAt(mostV, size), wire),
            ...thickerReturn(way, run, mostV),
            ...lessCurrentIn(run, wiring, mostV / lostV, system),
          ]
        : [],
    }
  },
})

/** A return that was set thinner than its run, as thick as that: where then no more is lost than may be. */
function thickerReturn(way: Way, { areaMm2, count }: Run, mostV: number): RemedyRef[] {
  if (areaMm2 === null) return []
  const thin = way.returnsByHand.filter(
    (back) => back.areaMm2 !== null && back.areaMm2 * back.count < areaMm2 * count,
  )
  const [back] = thin
  if (!back || thin.length > 1 || !way.keepsWithin(mostV, new Map([[back.id, { areaMm2, count }]]))) return []
  const values = count > back.count ? { values: { count } } : {}
  return [{ id: 'run.thicker', on: `runs/${back.id}`, value: areaMm2, ...values }]
}

const fuseRating = check({
  id: 'wiring.fuse-rating',
  title: 'Fuse against current and cable',
  topic: 'fuse of the run',
  about: 'run',
  takesTime: true,
  why: joinText(
    'A fuse too large for its conductor lets a short overheat it. ',
    'A fuse smaller than the current blows without a fault.',
  ),
  judge(subject, system) {
    const wire = sizedWireOf(subject, system)
    if (!wire) return null
    const fuse = wire.run.role === 'cranking' ? null : wire.wiring.ways.fuseOf(wire.run)
    // Whatever its size is.
    if (!fuse) return unfused(subject, wire)
    const ratedA = fuse.fitting?.ratedA ?? null
    if (ratedA === null || isSizeUnknown(wire.run)) return null
    // A return may carry more than the current of its fuse, because other circuits share it. Its own run checks the
    // fuse.
    const partner = wire.run.returnOf === null ? null : wire.wiring.ways.run(wire.run.returnOf)
    const ownA = partner ? heatingA(wire.wiring.design(partner)) : wire.amps
    const conductor = { ...conductorOf(subject, wire, system), flowsA: Math.min(wire.amps, ownA) }
    const on = {
      name: `fuse ${present(fuse.fitting).number}${partner ? ' in its positive' : ''}`,
      ratedA,
      holdsA: ratedA * (fuse.state === 'found' ? 1 : fuseShare),
    }
    const remedies = (): RemedyRef[] => {
      const suitable = suitableFuseA(wire, fuse)
      return [
        ...(suitable !== undefined && suitable !== ratedA
          ? [{ id: 'fitting.fuse', on: `fittings/${fuse.id}`, value: suitable } as const]
          : []),
        ...(suitable === undefined || isWrongFuse(conductor, on) === 'too large'
          ? sizeThat((size) => carriesItsFuse(wire, size, fuse), wire)
          : []),
      ]
    }
    const rule = fuse.state === 'found' ? '' : '1.25 × current ≤ fuse ≤ ampacity of the run: '
    return fuseAgainst(conductor, on, { rule, remedies, q: system.q })
  },
})

/** Whether a run of another size carries its current then, and the rating of its fuse, which may be larger then. */
const carriesItsFuse = (wire: Wire, size: Conductors, { id }: Post): boolean =>
  carriesWith(wire, size, (other) => {
    const flowsA = heatingA(other.design(wire.run))
    return Math.max(flowsA, other.ways.fittingAt(id).ratedA ?? 0)
  })

/** The fuse that carries its current then, with a margin if such a size exists, and protects the new run. */
function suitableFuseA({ wiring, run, amps: flowsA }: Wire, { id }: Post): number | undefined {
  const holds = (other: Wiring, size: number, share: number): boolean => {
    const then = other.ways.runAt(run.id)
    const mostA = Math.max(flowsA, heatingA(other.design(run)))
    const carriesA = then.areaMm2 === null ? 0 : runAmpacityA(then, then.areaMm2, then.count)
    return mostA <= size * share && size <= carriesA
  }
  const sizeWith = (share: number): number | undefined =>
    fuseSizesA.find(
      (size) =>
        holds(wiring.withFuseRating(id), size, share) && holds(wiring.withFuseRating(id, size), size, share),
    )
  return sizeWith(fuseShare) ?? sizeWith(1)
}

/** A run without any fuse because one that is proposed was left out; null if none is wanted there. */
function unfused({ name }: Subjects['run'], { run, wiring }: Wire): Judgement | null {
  const missing = omittedFuses(run, wiring)
  if (missing.length === 0) return null
  return {
    verdict: 'suits-once-changed',
    compared: [word('its fuse', 'left out'), word('wanted', 'a fuse')],
    limit: { kind: 'physics', text: 'a battery feeds a fault in every cable connected to it' },
    formula: () => `left out: ${missing.map((id) => wiring.ways.postAt(id).name).join(', ')}`,
    summary: () => `${name} has no fuse at all: a fault in it burns until the battery is empty.`,
    remedies: missing.map((id) => ({ id: 'fitting.add', on: `fittings/${id}` }) as const),
    cautions: localCode,
  }
}

const bothEnds = check({
  id: 'wiring.both-ends',
  title: 'Fuses at both ends of the run',
  about: 'run',
  takesTime: true,
  why: 'A conductor between two batteries can burn from either end. One fuse protects it from one end only.',
  judge(subject, system) {
    const wiring = wiringIn(system)
    const run = wiring.ways.run(subject.id)
    if (!run || run.role !== 'charge' || run.returnOf !== null) return null
    const fed = fedBy(run, wiring)
    if (fed.length === 0) return null
    const called = (some: readonly Feeding[]): string[] => [
      ...new Set(some.map(({ source }) => nameOf(source, wiring))),
    ]
    return fusedTowards(
      {
        name: subject.name,
        fedBy: called(fed),
        unfused: called(fed.filter(({ fuse }) => !fuse)),
        limit: { kind: 'physics', text: 'each battery feeds a fault from its end' },
      },
      {
        remedies: () =>
          omittedFuses(run, wiring).map((id) => ({ id: 'fitting.add', on: `fittings/${id}` }) as const),
      },
    )
  },
})

/** A battery or a bar that feeds a fault, and whether a fuse stands before it. */
interface Feeding {
  readonly source: Post
  readonly fuse: boolean
}

/**
 * Sources of a fault in a run: those beyond both ends if there are two, and each battery on whose path the fuse was
 * left out. A fault between a source and its own fuse is a matter of the fuse's place.
 */
function fedBy(run: Run, wiring: Wiring): Feeding[] {
  const ends = wiring
    .sourcesBeyond(run)
    .flatMap(({ source, fuse }): Feeding[] => (source ? [{ source, fuse }] : []))
  const touches = [run.from, run.to].some((end) => ['battery', 'bar'].includes(wiring.ways.postAt(end).kind))
  const both = !touches && ends.length === 2 ? ends : []
  const bare = omittedFuses(run, wiring).length > 0 ? wiring.ways.bareBatteriesOf(run) : []
  return [...both, ...bare.map((source) => ({ source, fuse: false }))]
}

/** The sources of a fault, as a noun inside a sentence. */
function nameOf(post: Post, { network }: Wiring): string {
  const battery = network.units.find(({ kind, plus }) => kind === 'battery' && plus === post.id)
  return nameInSentence((battery ?? post).name)
}

const isFuseLeftOut = (post: Post | null): boolean => post?.kind === 'joint' && post.intended === 'fuse'

/** Fuses on the way of a run that are proposed and not there. */
const omittedFuses = (run: Run, wiring: Wiring): string[] => [
  ...new Set(
    wiring.ways
      .wayOf(run)
      .flatMap(({ from, to }) => [from, to])
      .filter((id) => isFuseLeftOut(wiring.ways.post(id))),
  ),
]

export const checks = [ampacity, drop, fuseRating, bothEnds] as const
