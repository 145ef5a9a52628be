import { elementAt, entryOf, present } from '#core/collections/held'
import { ampacityThereA } from '#core/physics/conductors'
import type { FuseFamily } from '#core/physics/fuses'
import { inFewSizes } from './few-sizes'
import { conductorsOhm, takesRunSize, largestShare, type Conductors } from './run-ohm'
import { Joints } from './joints'
import { Solved, type Design } from './solved'
import type { Network, Post, Run } from './network'
import { Ways } from './paths'
import { withRatings, type Drafted } from './ratings'
import { dropShare, heatingA, type SizeRules } from './size-rules'
import { withFittingOhm } from './fitting-ohm'
import type { WiringDraft, DraftRun } from './propose/builder'

/** The largest size that is bought, mm²; beyond it several lie side by side. */
const largestMm2 = 120
export const mostConductors = 4
const mostRounds = 6
/** A bond is at most this many standard sizes smaller than the main lead. */
const bondSizesUnder = 1

/** Ampacity of a run in its place, A: of all conductors, limited by the one with the largest share. */
export const runAmpacityA = (
  run: Pick<Run, 'insulationC' | 'engineSpace' | 'airC' | 'bundled' | 'material' | 'lengthM' | 'shortestM'>,
  areaMm2: number,
  count = 1,
): number => ampacityThereA(areaMm2, run) / largestShare({ ...run, count })

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
