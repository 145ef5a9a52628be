import { elementAt, entryOf, lastOf, present, withId } from '#core/collections/held'
import { ampacityThereA } from '#core/physics/conductors'
import { fuseInterruptA, fuseRangeA, fuseSizesA, type FuseFamily } from '#core/physics/fuses'
import { fastestS, isGraded } from '#core/physics/fuse-times'
import { highestChargeV } from './charge-voltage'
import { inFewSizes } from './few-sizes'
import { conductorsOhm, takesRunSize, largestShare, type Conductors } from './run-ohm'
import { Joints } from './joints'
import { Solved, type Design } from './solved'
import type { Network, Post, Run } from './network'
import { Ways } from './paths'
import { surgeThrough, type Surge } from './surge'
import { withFittingOhm } from './fitting-ohm'
import type { WiringDraft, DraftRun } from './propose/builder'

/** Most of a fuse's rating that flows for hours, as a share of it. */
export const fuseShare = 0.8
/** The largest size that is bought, mm²; beyond it several lie side by side. */
const largestMm2 = 120
export const mostConductors = 4
const mostRounds = 6
/** Current during the seconds of a start, as a multiple of the ampacity (engineering default). */
const crankingFactor = 3
/** Thermal current of a run, A: the continuous current, or the equivalent of a start of some seconds. */
export const heatingA = ({ amps, crankingA }: Pick<Design, 'amps' | 'crankingA'>): number =>
  Math.max(amps, crankingA / crankingFactor)
/** A bond is at most this many standard sizes smaller than the main lead. */
const bondSizesUnder = 1

/** Allowed voltage drops as shares, the grading of fuses, and the carried sizes. */
export interface SizeRules {
  /** To and from the sources that charge a battery directly. */
  readonly charging: number
  /** To a DC-DC. */
  readonly dcdc: number
  /** To all other loads. */
  readonly other: number
  /** To a starter motor. */
  readonly cranking: number
  /** The main fuse against the largest behind it, as a multiple of its rating. */
  readonly grading: number
  /** Cable sizes that the shop carries, mm², rising. */
  readonly sizesMm2: readonly number[]
  /** Most sizes of new cable in one job. */
  readonly mostSizes: number
  /** Fuse families that the shop carries; null for every family. */
  readonly families: readonly FuseFamily[] | null
}

/** Ampacity of a run in its place, A: of all conductors, limited by the one with the largest share. */
export const runAmpacityA = (
  run: Pick<Run, 'insulationC' | 'engineSpace' | 'airC' | 'bundled' | 'material' | 'lengthM' | 'shortestM'>,
  areaMm2: number,
  count = 1,
): number => ampacityThereA(areaMm2, run) / largestShare({ ...run, count })

/** Allowed voltage drop of a run as a share, by the unit at its end. */
export function dropShare(
  { role, of, side }: Run | DraftRun,
  { units }: Pick<Network, 'units'>,
  rules: SizeRules,
): number {
  if (role === 'cranking') return rules.cranking
  if (role !== 'charge' && role !== 'return') return rules.other
  const [unit] = units.filter((one) => one.of === of && of !== null && one.kind !== 'battery')
  if (unit?.kind === 'dcdc') return side === 'input' ? rules.dcdc : rules.charging
  return unit?.kind === 'load' || unit?.kind === 'inverter' ? rules.other : rules.charging
}

/**
 * A network with all missing sizes and ratings: each fuse the smallest standard one of at least 1.25
 * times the current, of the first family that interrupts the short there; each run the smallest size that its fuse
 * protects and whose drop the shop allows. Sizes change the currents, so this repeats until
 * nothing changes, by the largest current of any round, since a thin cable holds its own current back.
 * @returns the network, solved
 */
export function sized(draft: WiringDraft, rules: SizeRules): Solved {
  let network = withGuess(draft)
  // The connections stay the same in each round.
  const joints = new Joints(network)
  const drafted: Drafted = { draft, ways: new Ways(draft) }
  const design = new Map<string, Design>()
  for (let round = 0; round < mostRounds; round++) {
    const solved = new Solved(network, joints)
    let grows = false
    for (const [id, found] of solved.design) {
      const known = design.get(id)
      if (known && found.amps <= known.amps + sameA) continue
      design.set(id, found)
      grows = true
    }
    const next = withSizes(draft, withRatings(drafted, solved, design, rules), design, rules)
    if (sameSizes(next, network) && !grows) return solved.as(next)
    network = next
  }
  return new Solved(network, joints)
}

const sameSizes = (one: Network, other: Network): boolean =>
  one.runs.every(
    ({ areaMm2, count }, i) =>
      areaMm2 === elementAt(other.runs, i).areaMm2 && count === elementAt(other.runs, i).count,
  ) && one.posts.every(({ fitting }, i) => fitting?.family === elementAt(other.posts, i).fitting?.family)

/** Currents that differ by less are one, A. */
const sameA = 1e-3

/** Large enough that no cable limits the current, mm². */
const guessMm2 = 120
const withGuess = (draft: WiringDraft): Network => ({
  ...draft,
  runs: draft.runs.map((run): Run => ({
    ...run,
    areaMm2: run.areaKnown === null ? guessMm2 : run.areaMm2,
    areaKnown: run.areaKnown ?? 'sized',
  })),
})

/** A draft with its ways. */
interface Drafted {
  readonly draft: WiringDraft
  readonly ways: Ways<DraftRun>
}

/** Ratings of fuses, switches and bars for their currents. */
function withRatings(
  drafted: Drafted,
  solved: Solved,
  design: ReadonlyMap<string, Design>,
  rules: SizeRules,
): Network {
  const { draft, ways } = drafted
  const ampsAt = ({ id }: Post): number => throughA(ways.runsAt(id), design)
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

function withSizes(
  draft: WiringDraft,
  network: Network,
  design: ReadonlyMap<string, Design>,
  rules: SizeRules,
): Network {
  const ways = new Ways(network)
  const own = new Map(
    withStuds(draft.runs, network.posts).map((run) => [
      run.id,
      sizeOf(run, { network, ways }, entryOf(design, run.id), rules),
    ]),
  )
  const thickest = thickestOf(own.values())
  const runs = draft.runs.map((run): Run => {
    const mine = entryOf(own, run.id)
    if (mine.areaKnown !== 'sized') return mine
    if (run.role === 'bond') return { ...mine, areaMm2: bondMm2(thickest, rules.sizesMm2) }
    const like = run.like === null ? undefined : own.get(run.like)
    if (!like || like.areaMm2 === null) return mine
    const exactly = run.returnOf !== null && run.role !== 'main'
    if (!exactly && like.areaMm2 * like.count <= present(mine.areaMm2) * mine.count) return mine
    return { ...mine, areaMm2: like.areaMm2, count: like.count }
  })
  // Thin lines are a size of their own.
  const others = network.lines.some(({ state }) => state === 'new') ? 1 : 0
  const few = inFewSizes(runs, ways, Math.max(1, rules.mostSizes - others))
  return { ...network, runs: withFittingOhm(few, network.posts) }
}

/** Families of fuses that sit on the stud of a bar or a battery. */
const onStud: readonly FuseFamily[] = ['terminal-block']

/**
 * Runs, of which those between a fuse and the post it sits on are studs: one for each fuse, and only new ones whose
 * length and size nobody set.
 */
function withStuds(runs: readonly DraftRun[], posts: readonly Post[]): DraftRun[] {
  const byId = new Map(posts.map((post) => [post.id, post]))
  const seated = new Set<string>()
  return runs.map((run) => {
    const ends = [run.from, run.to].flatMap((id) => byId.get(id) ?? [])
    const fuse = ends.find(({ fitting }) => fitting?.family && onStud.includes(fitting.family))
    const hasStud = ends.some(({ kind }) => kind === 'bar' || kind === 'battery')
    const isFree =
      run.state === 'new' && run.lengthKnown === 'usual' && run.areaKnown === null && run.measuredOhm === null
    if (!fuse || !hasStud || !isFree || seated.has(fuse.id)) return run
    seated.add(fuse.id)
    return { ...run, isStud: true, lengthM: 0, areaKnown: 'usual' }
  })
}

/** The largest main lead, or, if there is none, the largest run, mm² of all its conductors. */
function thickestOf(runs: Iterable<Run>): number {
  const all = [...runs]
  const mains = all.filter(({ role }) => role === 'main')
  return Math.max(0, ...(mains.length > 0 ? mains : all).map(({ areaMm2, count }) => (areaMm2 ?? 0) * count))
}

function bondMm2(thickestMm2: number, sizesMm2: readonly number[]): number {
  const at = sizesMm2.findIndex((size) => size >= thickestMm2)
  return elementAt(sizesMm2, Math.max(0, (at < 0 ? sizesMm2.length - 1 : at) - bondSizesUnder))
}

/** Share of its way that a run is by length, and the resistance of all fittings on that way, there and back, Ω. */
export function shareOfWay(
  run: Run,
  ways: Ways,
): { readonly ownShare: number; readonly fittingsOhm: number } {
  const way = ways.wayOf(run)
  return {
    ownShare: run.lengthM / way.reduce((sum, { lengthM }) => sum + lengthM, 0),
    fittingsOhm: way.reduce(
      (sum, part) => sum + part.fittingOhm + (ways.returnOf(part.id)?.fittingOhm ?? 0),
      0,
    ),
  }
}

function sizeOf(
  run: DraftRun,
  { network, ways }: { readonly network: Network; readonly ways: Ways },
  { amps, crankingA }: Design,
  rules: SizeRules,
): Run {
  if (run.areaKnown !== null) return { ...run, areaKnown: run.areaKnown }
  const fuse = run.role === 'cranking' ? null : ways.fuseOf(run)
  const mustCarryA = Math.max(heatingA({ amps, crankingA }), run.leastA, fuse?.fitting?.ratedA ?? 0)
  const { nominalV } = ways.postAt(run.from)
  const { ownShare, fittingsOhm } = shareOfWay(ways.runAt(run.id), ways)
  const back = ways.returnOf(run.id)
  const ohmOf = ({ lengthM, material, shortestM }: Run, { areaMm2, count }: Conductors): number =>
    conductorsOhm({ lengthM, material, areaMm2, count, shortestM }, network.cableC)
  // The voltage drop of its fuses, switches and plugs is not available for the conductor.
  const wayOhm = (size: Conductors): number => {
    const backOhm = back ? ohmOf(back, takesRunSize(back) ? size : back) : 0
    return ohmOf(ways.runAt(run.id), size) + backOhm + ownShare * fittingsOhm
  }
  const loses = (size: Conductors): boolean =>
    wayOhm(size) * amps <= dropShare(run, network, rules) * ownShare * nominalV &&
    wayOhm(size) * crankingA <= rules.cranking * nominalV
  for (let count = 1; count <= mostConductors; count++)
    for (const areaMm2 of rules.sizesMm2)
      if (
        areaMm2 <= largestMm2 &&
        runAmpacityA(run, areaMm2, count) >= mustCarryA &&
        loses({ areaMm2, count })
      )
        return { ...run, areaMm2, count, areaKnown: 'sized' }
  return { ...run, areaMm2: largestMm2, count: mostConductors, areaKnown: 'sized' }
}
