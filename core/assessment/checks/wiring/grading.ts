import { firstOf } from '#core/collections/held'
import { listInSentence, nameInSentence, joinText } from '#core/units/format'
import { check, number } from '#core/assessment/check'
import { familyWords } from '#core/job/parts/wiring'
import { fuseSizesA } from '#core/physics/fuses'
import { isGraded } from '#core/physics/fuse-times'
import type { Post } from '#core/wiring/network'
import { mostMainA } from '#core/wiring/ratings'
import type { Wiring } from '#core/wiring/wiring'
import type { RemedyRef } from '#core/remedies/catalogue'
import { fuseAt, ofFamily, type Fused } from './fuse'

/**
 * Fuses that open together for a fault behind them: the main fuse alone, or the own fuses of the batteries of a bank.
 */
interface Upper extends Pick<Fused, 'family' | 'ratedA'> {
  readonly name: string
  readonly fuses: readonly Post[]
}

const rated = (post: Post | null): Pick<Fused, 'family' | 'ratedA'> | null => {
  const { family = null, ratedA = null } = post?.fitting ?? {}
  return family && ratedA !== null ? { family, ratedA } : null
}

/** The main fuse, if there is one that is rated. */
function mainOf({ ways }: Wiring): Upper | null {
  const post = ways.post('main-fuse')
  const own = rated(post)
  return post && own ? { ...own, name: 'main fuse', fuses: [post] } : null
}

/**
 * The fuses of the batteries of a bank taken as one: each carries its share of a fault, so that their ratings add.
 */
function bankOf({ network }: Wiring): Upper | null {
  const fuses = network.posts.filter(({ fitting }) => fitting?.isOfOneBattery)
  const each = fuses.flatMap((fuse) => rated(fuse) ?? [])
  const [first] = each
  if (!first || each.length < fuses.length) return null
  const ratedA = Math.min(...each.map((one) => one.ratedA)) * each.length
  return { family: first.family, ratedA, name: `${each.length} battery fuses together`, fuses }
}

/** Larger fuses in place of the upper ones that leave the lower one to go first; none where no size does. */
function largerUpper({ fuses, family, ratedA }: Upper, isSound: (sumA: number) => boolean): RemedyRef[] {
  const each = fuseSizesA.find((size) => size * fuses.length > ratedA && isSound(size * fuses.length))
  return each === undefined
    ? []
    : fuses.map(({ id }) => ({ id: 'fitting.fuse', on: `fittings/${id}`, value: each, values: { family } }))
}

/** The fuses above one in a branch, and those of them that may open before it. */
interface Grades {
  readonly uppers: readonly Upper[]
  /** Those that another fuse would put right. */
  readonly wrong: readonly Upper[]
  /** Those that open with it whatever their size: its branch takes most of the bank’s current. */
  readonly together: readonly Upper[]
  /** Whether the family of the upper ones would put it right. */
  readonly isOfOneFamily: boolean
}

/** How a fuse in a branch is graded; null where none stands above it. */
function gradesOf({ wiring, ratedA, family }: Fused, ratio: number): Grades | null {
  const uppers = [mainOf(wiring), bankOf(wiring)].filter((upper) => upper !== null)
  const [nearest] = uppers
  if (!nearest) return null
  const isSoundUnder = (upper: Upper, sumA = upper.ratedA, own = { family, ratedA }): boolean =>
    isGraded({ family: upper.family, ratedA: sumA }, own, ratio)
  const ungraded = uppers.filter((upper) => !isSoundUnder(upper))
  // Where no fuse that the bank needs would be graded, this branch takes most of its current.
  const mostA = mostMainA(wiring.network)
  const isDominant = (upper: Upper): boolean =>
    upper.ratedA >= ratedA && !isSoundUnder(upper, Math.max(upper.ratedA, mostA))
  return {
    uppers,
    wrong: ungraded.filter((upper) => !isDominant(upper)),
    together: ungraded.filter(isDominant),
    isOfOneFamily: uppers.every((upper) =>
      isSoundUnder(upper, upper.ratedA, { family: nearest.family, ratedA }),
    ),
  }
}

function gradesWords(name: string, { uppers, wrong, together }: Grades): string {
  const [first] = wrong
  if (first) return `In a fault behind ${name}, the ${first.name} may open first and cut everything off.`
  const [dominated] = together
  if (dominated)
    return `${name} carries most of the bank’s current, so the ${dominated.name} may open with it.`
  return `In a fault behind it, ${name} opens before ${listInSentence(uppers.map((upper) => `the ${upper.name}`))}.`
}

const grading = check({
  id: 'wiring.grading',
  title: 'Which fuse goes first',
  topic: 'order in which fuses open',
  about: 'fitting',
  takesTime: true,
  why: 'A fault in one branch should blow the fuse of that branch only. Everything else stays on.',
  judge(subject, system) {
    const fuse = fuseAt(subject, system)
    if (!fuse) return null
    const { q, rules } = system
    const { wiring, post, ratedA, family } = fuse
    if (post.id === 'main-fuse') return mainAgainstBank(fuse, q)
    if (!wiring.ways.fusesOnBars.has(post.id)) return null
    const grades = gradesOf(fuse, rules.grading)
    if (!grades) return null
    const { uppers, wrong, together, isOfOneFamily } = grades
    const shown = firstOf(wrong.length > 0 ? wrong : uppers)
    const remedies = (): RemedyRef[] => [
      ...(isOfOneFamily ? [ofUpperFamily(fuse, firstOf(uppers))] : []),
      ...wrong.flatMap((upper) => larger(upper, fuse, rules.grading)),
    ]
    return {
      verdict: wrong.length === 0 ? 'suits' : 'suits-once-changed',
      compared: [number(shown.name, shown.ratedA, 'A'), number('this one', ratedA, 'A')],
      limit: {
        kind: 'rule',
        text: `shop rule: ${rules.grading} to 1 in one family, otherwise by melting times`,
      },
      formula: () => {
        const own = `${q(ratedA, 'A')} ${familyWords(family)}`
        const before = ({ name, ...upper }: Upper): string =>
          `${name} ${q(upper.ratedA, 'A')} ${familyWords(upper.family)} before ${own}`
        return uppers.map(before).join('; ')
      },
      summary: () => gradesWords(subject.name, grades),
      cautions: () =>
        wrong.length === 0 && together.length > 0
          ? [`A fault behind ${subject.name} may leave everything dark. Keep a spare of both fuses aboard.`]
          : [],
      remedies: wrong.length === 0 ? [] : remedies,
    }
  },
})

/** The same rating in the family of the fuse above it. */
const ofUpperFamily = ({ post, ratedA }: Fused, { family }: Upper): RemedyRef => ({
  id: 'fitting.fuse',
  on: `fittings/${post.id}`,
  value: ratedA,
  values: ofFamily(family, post),
})

/** A larger upper fuse, by the resulting lower fuse: a proposed rating follows it. */
function larger(upper: Upper, { wiring, post, family, ratedA }: Fused, ratio: number): RemedyRef[] {
  const then = wiring.withFuseRating(firstOf(upper.fuses).id).ways.fittingAt(post.id)
  const own = { family: then.family ?? family, ratedA: then.ratedA ?? ratedA }
  return largerUpper(upper, (sumA) => isGraded({ family: upper.family, ratedA: sumA }, own, ratio))
}

/** A main fuse against the fuses of the batteries before it: no larger than they are together, or they go first. */
function mainAgainstBank({ wiring, post, ratedA, family }: Fused, q: (value: number, unit: 'A') => string) {
  const bank = bankOf(wiring)
  if (!bank) return null
  const isLarger = ratedA > bank.ratedA
  const least = wiring.withFuseRating('main-fuse').ways.fittingAt(post.id).ratedA ?? ratedA
  const fits = fuseSizesA.filter((size) => size >= least && size <= bank.ratedA).at(-1)
  return {
    verdict: isLarger ? ('suits-once-changed' as const) : ('suits' as const),
    compared: [number('this one', ratedA, 'A'), number(bank.name, bank.ratedA, 'A')] as const,
    limit: { kind: 'physics' as const, text: 'fuses in series: the smallest opens first' },
    formula: () =>
      joinText(
        `${q(ratedA, 'A')} ${familyWords(family)} behind ${bank.fuses.length} `,
        `fuses of ${q(bank.ratedA / bank.fuses.length, 'A')} each`,
      ),
    summary: () =>
      isLarger
        ? joinText(
            `The main fuse is ${q(ratedA, 'A')}. `,
            `The ${bank.name} hold only ${q(bank.ratedA, 'A')}, so they go first.`,
          )
        : `The main fuse of ${q(ratedA, 'A')} is no larger than the ${nameInSentence(bank.name)}.`,
    remedies: (): RemedyRef[] =>
      !isLarger
        ? []
        : fits !== undefined
          ? [{ id: 'fitting.fuse', on: 'fittings/main-fuse', value: fits }]
          : largerUpper(bank, (sumA) => sumA >= ratedA),
  }
}

export const checks = [grading] as const
