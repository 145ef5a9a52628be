import { joinText, nameInSentence } from '#core/units/format'
import { check, number, word, type Judgement, type Subjects } from '#core/assessment/check'
import { familyWords } from '#core/job/parts/wiring'
import { cheapestFamily, fuseInterruptA, fuseSizesA, type FuseFamily } from '#core/physics/fuses'
import { fastestS, fuseMostV } from '#core/physics/fuse-times'
import { highestChargeV } from '#core/wiring/charge-voltage'
import { fuseShare } from '#core/wiring/size-rules'
import { surgeThrough, type Surge } from '#core/wiring/surge'
import { wiringIn } from '#core/wiring/wiring'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { System } from '#core/system/system'
import { interruptAgainst, plugAgainst } from '../conductor/conductor'
import { fuseAt, ofFamily, type Fused } from './fuse'

/** A fuse of another family that does, of the same rating where that is made. */
function otherFamily({ post, ratedA }: Fused, does: (family: FuseFamily) => boolean): RemedyRef[] {
  const family = cheapestFamily(ratedA, does)
  return family
    ? [{ id: 'fitting.fuse', on: `fittings/${post.id}`, value: ratedA, values: ofFamily(family, post) }]
    : []
}

const interrupt = check({
  id: 'wiring.fuse-interrupt',
  title: 'Interrupt rating of the fuse',
  about: 'fitting',
  takesTime: true,
  why: 'A fuse that cannot interrupt the short continues to burn after it melts.',
  judge(subject, system) {
    const fuse = fuseAt(subject, system)
    if (!fuse) return null
    const { wiring, post, family } = fuse
    const volts = highestChargeV(post)
    const shortA = wiring.solved.shortNearA(post.id)
    return interruptAgainst(
      {
        name: nameInSentence(subject.name),
        shortA,
        interruptsA: fuse.fitting.aicA ?? 0,
        volts,
        limit: {
          kind: 'computed',
          text: `typical for ${familyWords(family)} at ${volts.toFixed(1)} V, or the maker’s figure`,
        },
      },
      {
        short: {
          at: 'there',
          formula: () => `every source feeding a bolted short there: ${system.q(shortA, 'A')}`,
        },
        sterner: () => otherFamily(fuse, (one) => fuseInterruptA(one, volts) >= shortA),
        q: system.q,
      },
    )
  },
})

const voltage = check({
  id: 'wiring.fuse-voltage',
  title: 'Voltage of the fuse',
  about: 'fitting',
  takesTime: true,
  why: 'Above its rated voltage the arc in a melted fuse does not go out.',
  judge(subject, system) {
    const fuse = fuseAt(subject, system)
    if (!fuse) return null
    const { q } = system
    const [volts, most] = [highestChargeV(fuse.post), fuseMostV[fuse.family]]
    const over = volts > most
    return {
      verdict: over ? 'suits-once-changed' : 'suits',
      compared: [number('charged up to', volts, 'V'), number('fuse made for', most, 'V')],
      limit: { kind: 'computed', text: `typical for ${familyWords(fuse.family)}` },
      formula: () => `${q(volts, 'V')} ${over ? '>' : '≤'} ${q(most, 'V')}`,
      summary: () =>
        over
          ? `${subject.name} is rated ${q(most, 'V')}, and the system is charged up to ${q(volts, 'V')}.`
          : `${subject.name} is rated ${q(most, 'V')}.`,
      remedies: over ? otherFamily(fuse, (one) => fuseMostV[one] >= volts) : [],
    }
  },
})

/** The smallest fuse that holds a start, with the current once it is fitted; undefined if none does. */
function holdingSizeA({ wiring, post, family, ratedA }: Fused, { amps, seconds }: Surge): number | undefined {
  const holds = (size: number): boolean => {
    const then = wiring.withFuseRating(post.id, size)
    const start = surgeThrough(post.id, then.throughA(post.id), then.network) ?? { amps, seconds }
    const own = then.ways.fittingAt(post.id).family ?? family
    return fastestS(own, start.amps / size) >= start.seconds
  }
  return fuseSizesA.find((size) => size > ratedA && fastestS(family, amps / size) >= seconds && holds(size))
}

const surge = check({
  id: 'wiring.fuse-surge',
  title: 'A sound start through the fuse',
  about: 'fitting',
  takesTime: true,
  why: 'Somebody soon bridges a fuse that opens at every hard start.',
  judge(subject, system) {
    const fuse = fuseAt(subject, system)
    const through =
      fuse && surgeThrough(fuse.post.id, fuse.wiring.throughA(fuse.post.id), fuse.wiring.network)
    if (!fuse || !through) return null
    const { q } = system
    const { family, ratedA, post } = fuse
    const { amps, seconds } = through
    const opensS = fastestS(family, amps / ratedA)
    const opens = opensS < seconds
    return {
      verdict: opens ? 'suits-once-changed' : 'suits',
      compared: [
        number('a start takes', seconds, 's'),
        opensS === Infinity ? word('the fuse', 'holds it for good') : number('may open after', opensS, 's'),
      ],
      limit: { kind: 'computed', text: `fastest opening of ${familyWords(family)}` },
      formula: () =>
        joinText(
          `${q(amps, 'A')} ÷ ${q(ratedA, 'A')} = ${(amps / ratedA).toFixed(2)} ×`,
          opensS === Infinity ? '' : `: opens after ${q(opensS, 's')} at the soonest`,
        ),
      summary: () =>
        opens
          ? `A start of ${q(amps, 'A')} for ${q(seconds, 's')} may blow ${subject.name}.`
          : `${subject.name} holds a start of ${q(amps, 'A')} for ${q(seconds, 's')}.`,
      remedies: opens
        ? () => {
            const value = holdingSizeA(fuse, through)
            return value === undefined ? [] : [{ id: 'fitting.fuse', on: `fittings/${post.id}`, value }]
          }
        : [],
    }
  },
})

/**
 * Cable between a fuse and the nearest unprotected source, mm. For a main fuse the source is its battery, not the
 * bar that it feeds. For a fuse at the other end of a cable, it is the part next to it. Infinity if unknown.
 */
function bareMm({ wiring: { ways }, post }: Fused): number {
  const runs = ways.runsAt(post.id)
  const bare = runs.flatMap((run) => ways.bareWay(post.id, run) ?? [])
  const batteries = bare.filter(({ source }) => source.kind === 'battery')
  const isMain = runs.every(({ role }) => role === 'main')
  const sources = isMain && batteries.length > 0 ? batteries : bare
  const known = (sources.length > 0 ? sources.map((way) => way.runs) : runs.map((run) => [run])).filter(
    (way) => way.every(({ lengthKnown }) => lengthKnown !== 'open'),
  )
  return Math.min(...known.map((way) => way.reduce((sum, { lengthM }) => sum + lengthM * 1000, 0)))
}

const place = check({
  id: 'wiring.fuse-place',
  title: 'Distance of the fuse from its source',
  about: 'fitting',
  takesTime: true,
  why: 'Nothing protects the conductor between a source and its fuse.',
  judge(subject, system) {
    const fuse = fuseAt(subject, system)
    if (!fuse) return null
    const { q, rules } = system
    const { post, fitting } = fuse
    const mm = fitting.distanceMm ?? bareMm(fuse)
    if (!Number.isFinite(mm)) return null
    const far = mm > rules.fuseWithinMm && !fitting.sheathed
    return {
      verdict: far ? 'suits-once-changed' : 'suits',
      compared: [number('cable before the fuse', mm, 'mm'), number('at most', rules.fuseWithinMm, 'mm')],
      limit: { kind: 'rule', text: 'shop rule: largest distance from source to fuse' },
      formula: () =>
        joinText(
          `${q(mm, 'mm')} ${far ? '>' : '≤'} `,
          `${q(rules.fuseWithinMm, 'mm')}${fitting.sheathed ? ', in a sheath of its own' : ''}`,
        ),
      summary: () =>
        far
          ? `Between its source and ${subject.name} lie ${q(mm, 'mm')} of cable that nothing protects.`
          : joinText(
              `${subject.name} is ${q(mm, 'mm')} from its `,
              `source${fitting.sheathed ? ', in a sheath of its own' : ''}.`,
            ),
      remedies: far ? [{ id: 'fitting.nearer', on: `fittings/${post.id}`, value: rules.fuseWithinMm }] : [],
    }
  },
})

/** A fitting other than a fuse that carries current for hours. */
function rated(subject: Subjects['fitting'], system: System, kinds: readonly string[]): Judgement | null {
  const wiring = wiringIn(system)
  const post = wiring.ways.post(subject.id)
  if (!post?.fitting || post.fitting.ratedA === null || !kinds.includes(post.kind)) return null
  const { q } = system
  const ratedA = post.fitting.isRatingOpen ? system.one.use.shuntA : post.fitting.ratedA
  const amps = wiring.throughA(post.id)
  const over = amps > ratedA
  return {
    verdict: over ? 'suits-once-changed' : 'suits',
    compared: [number('passes', amps, 'A'), number('made for', ratedA, 'A')],
    limit: { kind: 'label', text: 'its rating' },
    formula: () => `${q(amps, 'A')} ${over ? '>' : '≤'} ${q(ratedA, 'A')}`,
    summary: () =>
      over
        ? `${subject.name} carries ${q(amps, 'A')} and is rated only ${q(ratedA, 'A')}.`
        : `${subject.name} is rated ${q(ratedA, 'A')} and carries ${q(amps, 'A')}.`,
    remedies: over
      ? [{ id: 'fitting.larger', on: `fittings/${post.id}`, value: Math.ceil(amps / fuseShare / 10) * 10 }]
      : [],
  }
}

const switchRating = check({
  id: 'wiring.switch-rating',
  title: 'Current through the switch, relay or shunt',
  about: 'fitting',
  takesTime: true,
  why: 'Contacts that carry more than their rating weld or burn.',
  judge: (subject, system) => rated(subject, system, ['switch', 'relay', 'stop', 'shunt']),
})

const barRating = check({
  id: 'wiring.busbar-rating',
  title: 'Current in the bar',
  about: 'fitting',
  takesTime: true,
  why: 'The bar carries the current of all branches.',
  judge: (subject, system) => rated(subject, system, ['bar']),
})

const plug = check({
  id: 'wiring.plug',
  title: 'Plug of the run',
  about: 'fitting',
  takesTime: true,
  why: joinText(
    'A plug is the weakest part of its cable, and its contacts age. ',
    'It melts at a current that cable and fuse carry.',
  ),
  judge(subject, system) {
    const wiring = wiringIn(system)
    const post = wiring.ways.post(subject.id)
    if (post?.kind !== 'plug' || post.fitting?.ratedA == null) return null
    const { ratedA, mostMm2 } = post.fitting
    const runs = wiring.ways.runsAt(post.id)
    const amps = wiring.throughA(post.id)
    const fuseA = Math.max(0, ...runs.map((run) => wiring.ways.fuseOf(run)?.fitting?.ratedA ?? 0))
    const area = Math.max(...runs.map(({ areaMm2 }) => areaMm2 ?? 0))
    const needsA = Math.max(amps, fuseA)
    return plugAgainst(
      { name: subject.name, ratedA, mostMm2, limit: { kind: 'label', text: 'moulded on its shell' } },
      { flowsA: amps, fuseA, areaMm2: area },
      {
        remedies: () => [
          { id: 'fitting.larger', on: `fittings/${post.id}`, value: Math.ceil(needsA / 5) * 5 },
        ],
        q: system.q,
      },
    )
  },
})

export const checks = [interrupt, voltage, surge, place, switchRating, barRating, plug] as const
