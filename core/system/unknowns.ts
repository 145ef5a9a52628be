import { elementAt, entryOf } from '#core/collections/held'
import type { FieldPath } from '#core/job/document'
import type { Field } from '#core/job/fields'
import { formatRange, type Write } from '#core/units/format'
import type { Unit } from '#core/units/units'
import type { Assumed } from './scene'
import { isWorse, verdicts, type Verdict } from './verdict'

/** A stretch of an unknown's range, or one of its options, with the verdict it would give. */
export interface Band {
  readonly from: number | string
  readonly to: number | string
  readonly verdict: Verdict
}

/** How a band reads: `13.6 to 14.2 V`, or the words of an option. */
export function bandWords(band: Band, field: Field, q: Write): string {
  if (field.type === 'choice') return field.options[String(band.from)] ?? String(band.from)
  const unit: Unit = field.type === 'quantity' ? field.unit : ''
  return formatRange(Number(band.from), Number(band.to), unit, q)
}

/** An unknown that decides a check's verdict. */
export interface Deciding {
  readonly path: FieldPath
  /** Share of its range, 0 to 1, in which measuring it alone would settle the check. */
  readonly settles: number
  /** Which values give which verdict, the other unknowns being usual ones. */
  readonly bands: readonly Band[]
}

interface Exploration {
  /** The verdict that holds over all the unknowns; null when they decide it. */
  readonly verdict: Verdict | null
  /** The deciding unknowns; with bands if those were calculated. */
  readonly deciding: readonly (Omit<Deciding, 'bands'> & { readonly bands: readonly Band[] | null })[]
}

/**
 * How much is tried. Points for the first, second, … unknown met on the way: fewer the deeper, so that the
 * work stays bounded.
 */
export interface Effort {
  readonly pointsByDepth: readonly number[]
  readonly mostLeaves: number
  readonly bandPoints: number
  readonly bisections: number
  /** Points of all bands together: with many unknowns, fewer for each. */
  readonly mostBandPoints: number
}
export const manyScenes: Effort = {
  pointsByDepth: [7, 4, 3, 2],
  mostLeaves: 120,
  bandPoints: 17,
  bisections: 12,
  mostBandPoints: 400,
}
/** For checks that need a run in each scene. */
export const fewScenes: Effort = {
  pointsByDepth: [5, 3, 2],
  mostLeaves: 24,
  bandPoints: 5,
  bisections: 5,
  mostBandPoints: 60,
}

/** The same with so many sources that each run takes long. */
export const fewestScenes: Effort = {
  pointsByDepth: [3, 2],
  mostLeaves: 8,
  bandPoints: 3,
  bisections: 2,
  mostBandPoints: 12,
}

/** Several verdicts as bits, so that sets compare by value. */
type VerdictSet = number
const setOf = (verdict: Verdict): VerdictSet => 1 << verdicts.indexOf(verdict)
const isSingle = (set: VerdictSet): boolean => (set & (set - 1)) === 0
/** The finding of a check in a scene, and the unknowns that it read without an assumption, in that order. */
export interface Looked {
  readonly verdict: Verdict
  readonly missing: readonly FieldPath[]
}

/** A check as its exploring sees it. */
export interface Explorable {
  /** @param assumed counts for this call alone: it is changed after */
  readonly judge: (assumed: Assumed) => Looked
  /** Values to try for an unknown. */
  readonly samples: (path: FieldPath, count: number) => readonly unknown[]
  /** The value that a scene gives an unknown without an assumption. */
  readonly typical: (path: FieldPath) => unknown
}

/**
 * Checks a check over the plausible ranges of the unknowns it reads. Unknowns are discovered as the checking
 * meets them, so only those that matter on a branch are tried there. Where the tree meets one verdict alone,
 * each unknown is also scanned alone, finely. A verdict found at every point holds. The number of checks
 * is bounded; past the bound a branch is checked at usual values. Yields between checks.
 */
export function* explore(check: Explorable, effort: Effort): Generator<void, Exploration, void> {
  const { tried, swaying, met, leaves } = yield* grow(check, effort)
  const decidedBy = (path: FieldPath, bands: readonly Band[] | null): Exploration['deciding'][number] => ({
    path,
    bands,
    settles: settledShare(path, entryOf(tried, path), leaves),
  })
  const paths = [...tried.keys()]
  if (!isSingle(met))
    return {
      verdict: null,
      deciding: paths.filter((path) => swaying.has(path)).map((path) => decidedBy(path, null)),
    }
  // The same verdict at every point of the tree: scan each unknown alone more finely, between its
  // points.
  const found: Exploration['deciding'][number][] = []
  const each = sharedAmong(paths.length, effort)
  for (const path of paths) {
    const bands = yield* scan(check, path, each)
    if (bands.some((band) => setOf(band.verdict) !== met)) found.push(decidedBy(path, bands))
  }
  if (found.length > 0) return { verdict: null, deciding: found }
  const verdict = elementAt(verdicts, Math.log2(met))
  // The tree is limited: several unknowns together may change a verdict that none changes alone.
  if (isWorse(verdict, 'suits') && paths.length > 1 && (yield* isBetterTogether(check, paths, verdict)))
    return { verdict: null, deciding: paths.map((path) => decidedBy(path, null)) }
  return { verdict, deciding: [] }
}

/** Combinations of several unknowns that are tried, and the points of each. */
const combinations = 24
const combinedPoints = 5

/** Whether values of several unknowns together give a better verdict than the one met: spread over all of them. */
function* isBetterTogether(
  check: Explorable,
  paths: readonly FieldPath[],
  verdict: Verdict,
): Generator<void, boolean, void> {
  const values = paths.map((path) => check.samples(path, combinedPoints))
  for (let i = 0; i < combinations; i++) {
    // A different stride for each unknown, so that ends meet ends and middles.
    const assumed = new Map(
      paths.map(
        (path, j) => [path, elementAt(values, j)[(i * (j + 1) + j) % elementAt(values, j).length]] as const,
      ),
    )
    if (isWorse(verdict, check.judge(assumed).verdict)) return true
    yield
  }
  return false
}

const leastBandPoints = 3
/** The effort for the bands of one unknown among this many. */
export const sharedAmong = (count: number, effort: Effort): Effort => ({
  ...effort,
  bandPoints: Math.max(
    leastBandPoints,
    Math.min(effort.bandPoints, Math.floor(effort.mostBandPoints / Math.max(1, count))),
  ),
})

/** A branch followed to its end. */
interface Leaf {
  readonly assumed: readonly FieldPath[]
  readonly met: VerdictSet
}

/** The result of each tried value of an unknown, over all branches. */
type Tried = ReadonlyMap<unknown, VerdictSet>

interface Tree {
  /** By unknown, in the order met. */
  readonly tried: ReadonlyMap<FieldPath, Tried>
  /** Unknowns of which one value gave other verdicts than another on the same branch. */
  readonly swaying: ReadonlySet<FieldPath>
  readonly leaves: readonly Leaf[]
  readonly met: VerdictSet
}

/** Tries values of one unknown after another. */
function* grow(check: Explorable, { pointsByDepth, mostLeaves }: Effort): Generator<void, Tree, void> {
  const leaves: Leaf[] = []
  const tried = new Map<FieldPath, Map<unknown, VerdictSet>>()
  const swaying = new Set<FieldPath>()
  const assumed = new Map<FieldPath, unknown>()

  function* visit({ verdict, missing }: Looked): Generator<void, VerdictSet, void> {
    const open = missing[0]
    if (open === undefined || leaves.length >= mostLeaves) {
      leaves.push({ assumed: [...assumed.keys()], met: setOf(verdict) })
      return setOf(verdict)
    }
    if (!tried.has(open)) tried.set(open, new Map())
    const led = entryOf(tried, open)
    const points = elementAt(pointsByDepth, Math.min(assumed.size, pointsByDepth.length - 1))
    const typical = check.typical(open)
    let all: VerdictSet = 0
    for (const value of check.samples(open, points)) {
      assumed.set(open, value)
      // With its typical value the scene is the one just seen, in which it was taken so.
      const looked = value === typical ? { verdict, missing: missing.slice(1) } : check.judge(assumed)
      const below = yield* visit(looked)
      assumed.delete(open)
      if (all !== 0 && below !== all) swaying.add(open)
      led.set(value, (led.get(value) ?? 0) | below)
      all |= below
      yield
    }
    return all
  }

  const met = yield* visit(check.judge(assumed))
  return { tried, swaying, leaves, met }
}

/** Share of an unknown's tried values at which every leaf that agrees with it has the same verdict. */
function settledShare(path: FieldPath, tried: Tried, leaves: readonly Leaf[]): number {
  let without: VerdictSet = 0
  for (const { assumed, met } of leaves) if (!assumed.includes(path)) without |= met
  return [...tried.values()].filter((met) => isSingle(met | without)).length / tried.size
}

/**
 * The verdict along one unknown's range, others usual, with the edges between found by bisection. Yields
 * between checks.
 */
export function* scan(
  check: Explorable,
  path: FieldPath,
  { bandPoints, bisections }: Effort,
): Generator<void, Band[], void> {
  const at = (value: unknown): Verdict => check.judge(new Map([[path, value]])).verdict
  const bands: Band[] = []
  for (const value of check.samples(path, bandPoints)) {
    const verdict = at(value)
    yield
    const last = bands.at(-1)
    if (typeof value !== 'number') {
      bands.push({ from: value as string, to: value as string, verdict })
    } else if (last?.verdict === verdict) {
      bands[bands.length - 1] = { ...last, to: value }
    } else {
      let edge = value
      if (last !== undefined) {
        edge = yield* edgeBetween(last.to as number, value, bisections, (mid) => at(mid) === last.verdict)
        bands[bands.length - 1] = { ...last, to: edge }
      }
      bands.push({ from: edge, to: value, verdict })
    }
  }
  return bands
}

function* edgeBetween(
  low: number,
  high: number,
  bisections: number,
  isBefore: (value: number) => boolean,
): Generator<void, number, void> {
  for (let i = 0; i < bisections; i++) {
    const middle = (low + high) / 2
    if (isBefore(middle)) low = middle
    else high = middle
    yield
  }
  return Number(high.toPrecision(5))
}
