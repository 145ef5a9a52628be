import { elementAt, entryOf, lastOf, withId } from '#core/collections/held'
import { isGraded, fastestS } from '#core/physics/fuse-times'
import { fuseInterruptA, fuseRangeA, fuseSizesA, type FuseFamily } from '#core/physics/fuses'
import { highestChargeV } from './charge-voltage'
import type { Network, Post } from './network'
import type { Ways } from './paths'
import type { DraftRun, WiringDraft } from './propose/builder'
import { fuseShare, heatingA, type SizeRules } from './size-rules'
import type { Design, Solved } from './solved'
import { surgeThrough, type Surge } from './surge'

/** A draft with its ways. */
export interface Drafted {
  readonly draft: WiringDraft
  readonly ways: Ways<DraftRun>
}

/** Ratings of fuses, switches and bars for their currents. */
export function withRatings(
  drafted: Drafted,
  solved: Solved,
  design: ReadonlyMap<string, Design>,
  rules: SizeRules,
): Network {
  const { draft, ways } = drafted
  const ampsAt = ({ id }: Post): number => throughA(ways.runsThrough(id), design)
  const posts = draft.posts.map((post): Post => {
    const { fitting } = post
    if (!fitting) return post
    const amps = ampsAt(post)
    if (post.kind !== 'fuse')
      return { ...post, fitting: { ...fitting, ratedA: fitting.ratedA ?? fittingFor(amps) } }
    const { family, ratedA } = fuseFor(
      post,
      amps,
      solved.shortNearA(post.id),
      surgeThrough(post.id, amps, draft),
      rules,
    )
    const aicA = fitting.aicA ?? fuseInterruptA(family, highestChargeV(post))
    return { ...post, fitting: { ...fitting, family, ratedA, aicA } }
  })
  return { ...solved.network, posts: ratedAsFuses(graded(posts, drafted, ampsAt, rules), drafted) }
}

/**
 * The main fuse larger than each behind it on the bar, by the shop’s ratio; a branch fuse whose own family might open
 * after it all the same is of the family of the main fuse.
 */
function graded(
  posts: readonly Post[],
  { draft, ways }: Drafted,
  ampsAt: (post: Post) => number,
  rules: SizeRules,
): readonly Post[] {
  const main = posts.find(({ id }) => id === 'main-fuse')
  if (!main?.fitting?.family || main.fitting.ratedA === null) return posts
  const isFree = withId(draft.posts, main.id).fitting?.ratedA === null
  const onBar = ways.fusesOnBars
  const over = (branches: readonly Post[]): Post =>
    isFree ? largerThan(branches, main, onBar, rules, mostMainA(draft)) : main
  const larger = over(posts)
  const alike = posts.map((post, i) =>
    elementAt(draft.posts, i).fitting?.family === null && onBar.has(post.id)
      ? ofFamilyOf(larger, post, surgeThrough(post.id, ampsAt(post), draft), rules)
      : post,
  )
  // One of another family may have to be larger for a start, and the main fuse with it.
  const last = over(alike)
  return bankAsMain(
    alike.map((post) => (post.id === main.id ? last : post)),
    last,
    draft,
  )
}

/**
 * The own fuses of the batteries of a bank, together no smaller than the main fuse behind them: or they would go
 * first.
 */
function bankAsMain(posts: readonly Post[], main: Post, draft: WiringDraft): readonly Post[] {
  const count = posts.filter(({ fitting }) => fitting?.isOfOneBattery).length
  const leastA = (main.fitting?.ratedA ?? 0) / Math.max(1, count)
  return posts.map((post, i) => {
    if (!post.fitting?.isOfOneBattery || elementAt(draft.posts, i).fitting?.ratedA !== null) return post
    if (!post.fitting.family || (post.fitting.ratedA ?? 0) >= leastA) return post
    const ratedA = fuseSizesA.find((size) => size >= leastA) ?? lastOf(fuseSizesA)
    return { ...post, fitting: { ...post.fitting, ratedA } }
  })
}

/** The largest main fuse that a bank needs, A: for its continuous current. */
export const mostMainA = ({ bankA }: Pick<Network, 'bankA'>): number =>
  fuseSizesA.find((size) => size >= bankA / fuseShare) ?? lastOf(fuseSizesA)

/** The main fuse, rated by the shop’s ratio to the largest fuse on the bar, but not above the need of the bank. */
function largerThan(
  posts: readonly Post[],
  main: Post,
  onBar: ReadonlySet<string>,
  { grading }: SizeRules,
  mostA: number,
): Post {
  const rated = posts.filter(({ id }) => onBar.has(id)).map(({ fitting }) => fitting?.ratedA ?? 0)
  const largest = Math.max(0, ...rated)
  // Never smaller than one behind it.
  const targetA = Math.max(largest, Math.min(grading * largest, mostA))
  const least = Math.max(main.fitting?.ratedA ?? 0, targetA)
  const ratedA = fuseSizesA.find((size) => size >= least) ?? lastOf(fuseSizesA)
  return { ...main, fitting: main.fitting && { ...main.fitting, ratedA } }
}

/**
 * A branch fuse of the main fuse's family, if its own family might open after the main fuse; large enough for
 * starting currents.
 */
function ofFamilyOf(main: Post, post: Post, surge: Surge | null, { grading }: SizeRules): Post {
  const { family = null, ratedA: mainA = null } = main.fitting ?? {}
  const own = post.fitting
  if (!family || mainA === null || !own?.family || own.ratedA === null) return post
  if (isGraded({ family, ratedA: mainA }, { family: own.family, ratedA: own.ratedA }, grading)) return post
  const least = own.ratedA
  const ratedA = fuseSizesA.find((size) => size >= least && bearsStart(family, size, surge)) ?? least
  return { ...post, fitting: { ...own, family, ratedA, aicA: fuseInterruptA(family, highestChargeV(post)) } }
}

/** Whether a fuse holds the starting current behind it. */
const bearsStart = (family: FuseFamily, ratedA: number, surge: Surge | null): boolean =>
  !surge || fastestS(family, surge.amps / ratedA) >= surge.seconds

/** Switches, bars and shunts for no less than the fuse before them lets through for good. */
function ratedAsFuses(posts: readonly Post[], { draft, ways }: Drafted): readonly Post[] {
  const rated = new Map(posts.map(({ id, fitting }) => [id, fitting?.ratedA ?? 0]))
  return posts.map((post, i): Post => {
    const { fitting } = post
    if (!fitting || post.kind === 'fuse' || elementAt(draft.posts, i).fitting?.ratedA !== null) return post
    const mains = ways.runsAt(post.id).filter(({ role }) => role === 'main')
    const fuses = mains.flatMap((run) => ways.fuseOf(run) ?? [])
    const leastA = Math.max(0, ...fuses.map(({ id }) => entryOf(rated, id)))
    const ratedA = fittingSizesA.find((size) => size >= leastA) ?? lastOf(fittingSizesA)
    return { ...post, fitting: { ...fitting, ratedA: Math.max(ratedA, fitting.ratedA ?? 0) } }
  })
}

/** The largest current that passes a post, A, or that it must be made for. @param runs those that it is joined by */
const throughA = (runs: readonly DraftRun[], design: ReadonlyMap<string, Design>): number =>
  runs.reduce(
    (most, { id, role, leastA }) =>
      role === 'cranking' ? most : Math.max(most, leastA, heatingA(entryOf(design, id))),
    0,
  )

/** Ratings in which switches, relays, shunts, bars and plugs are made, A. */
const fittingSizesA = [50, 100, 150, 200, 250, 300, 350, 500, 600, 1000, 1500, 2000]
const fittingFor = (amps: number): number =>
  fittingSizesA.find((size) => size >= amps / fuseShare) ?? lastOf(fittingSizesA)

/** Families in the order in which they are taken: the simplest that does it. */
const familyOrder: readonly FuseFamily[] = [
  'blade',
  'maxi-blade',
  'bolt-down-midi',
  'bolt-down-mega',
  'anl',
  'terminal-block',
  'class-t',
]
/**
 * A fuse larger than needed is accepted up to this multiple of the current, or up to a small branch, A: its cable is
 * sized for it.
 */
const mostTimes = 3
const smallBranchA = 30

/** A fuse that holds the current and interrupts the short there. Known values stay. */
function fuseFor(
  post: Post,
  amps: number,
  shortA: number,
  surge: Surge | null,
  { families: carried }: SizeRules,
): { readonly family: FuseFamily; readonly ratedA: number } {
  const { family = null, ratedA = null } = post.fitting ?? {}
  const least = ratedA ?? amps / fuseShare
  const volts = highestChargeV(post)
  const families = family ? [family] : familyOrder.filter((one) => carried?.includes(one) ?? true)
  for (const one of families) {
    const [smallest, largest] = fuseRangeA[one]
    const rated =
      ratedA ?? fuseSizesA.find((size) => size >= least && size >= smallest && bearsStart(one, size, surge))
    const fits =
      rated !== undefined && rated <= largest && rated <= Math.max(least, mostTimes * amps, smallBranchA)
    const inRange = ratedA === null || (ratedA >= smallest && ratedA <= largest)
    if (family || (fits && inRange && fuseInterruptA(one, volts) >= shortA))
      return { family: one, ratedA: rated ?? lastOf(fuseSizesA) }
  }
  return {
    family: 'class-t',
    ratedA:
      ratedA ??
      fuseSizesA.find((size) => size >= least && bearsStart('class-t', size, surge)) ??
      fuseSizesA.find((size) => size >= least) ??
      lastOf(fuseSizesA),
  }
}
