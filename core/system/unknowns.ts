import type { FieldPath } from '#core/job/document'
import type { Field } from '#core/job/fields'
import type { Write } from '#core/units/format'
import type { Unit } from '#core/units/units'
import type { Assumed } from './scene'
import { verdicts, type Verdict } from './verdict'

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
  return `${q(Number(band.from), unit).replace(/ .*/, '')} to ${q(Number(band.to), unit)}`
}

/** An unknown on which a check's verdict hangs. */
export interface Deciding {
  readonly path: FieldPath
  /** Share of its range, 0 to 1, in which measuring it alone would settle the check. */
  readonly settles: number
  /** Which values give which verdict, the other unknowns being usual ones. */
  readonly bands: readonly Band[]
}

export interface Exploration {
  /** The verdict that holds over all the unknowns; null when they decide it. */
  readonly verdict: Verdict | null
  readonly deciding: readonly Deciding[]
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
}
export const manyScenes: Effort = {
  pointsByDepth: [7, 4, 3, 2],
  mostLeaves: 120,
  bandPoints: 17,
  bisections: 12,
}
/** For checks that need a run in each scene. */
export const fewScenes: Effort = { pointsByDepth: [5, 3, 2], mostLeaves: 24, bandPoints: 5, bisections: 5 }

interface Leaf {
  readonly assumed: Assumed
  readonly verdicts: VerdictSet
}

/** Several verdicts as bits, so that sets compare by value. */
type VerdictSet = number
const setOf = (verdict: Verdict): VerdictSet => 1 << verdicts.indexOf(verdict)
const isSingle = (set: VerdictSet): boolean => (set & (set - 1)) === 0
const union = (sets: Iterable<VerdictSet>): VerdictSet => {
  let all = 0
  for (const set of sets) all |= set
  return all
}

/**
 * A check as its exploring sees it: what it says in a scene, and which unknown that scene met first without
 * an assumption.
 */
export interface Explorable {
  readonly judge: (assumed: Assumed) => { readonly verdict: Verdict; readonly missing: FieldPath | null }
  /** Values to try for an unknown. */
  readonly samples: (path: FieldPath, count: number) => readonly unknown[]
}

/**
 * Judges a check over the plausible ranges of the unknowns it reads. Unknowns are discovered as the judging
 * meets them, so only those that matter on a branch are tried there. Where the tree meets one verdict alone,
 * each unknown is also scanned by itself, finely; a verdict met at every point holds. The number of judgings
 * is bounded; past the bound a branch is judged at usual values.
 */
export function explore(check: Explorable, effort: Effort): Exploration {
  const { pointsByDepth, mostLeaves } = effort
  const leaves: Leaf[] = []
  const swaying = new Set<FieldPath>()
  const visit = (assumed: Map<FieldPath, unknown>): VerdictSet => {
    const { verdict, missing: open } = check.judge(assumed)
    if (open === null || leaves.length >= mostLeaves) {
      leaves.push({ assumed: new Map(assumed), verdicts: setOf(verdict) })
      return setOf(verdict)
    }
    const points = pointsByDepth[Math.min(assumed.size, pointsByDepth.length - 1)]!
    const below = check.samples(open, points).map((value) => visit(new Map(assumed).set(open, value)))
    if (below.some((set) => set !== below[0])) swaying.add(open)
    return union(below)
  }
  const met = visit(new Map())
  const paths = [...new Set(leaves.flatMap((leaf) => [...leaf.assumed.keys()]))]
  if (!isSingle(met))
    return {
      verdict: null,
      deciding: paths
        .filter((path) => swaying.has(path))
        .map((path) => decidingOn(path, () => scan(check, path, effort))),
    }
  // One verdict wherever the tree looked: a finer look along each unknown alone, for what lies between its
  // points.
  const bandsOf = new Map(paths.map((path) => [path, scan(check, path, effort)]))
  const holds = (bands: readonly Band[]): boolean => bands.every((band) => setOf(band.verdict) === met)
  const found = paths.filter((path) => !holds(bandsOf.get(path)!))
  return found.length === 0
    ? { verdict: verdicts[Math.log2(met)]!, deciding: [] }
    : { verdict: null, deciding: found.map((path) => decidingOn(path, () => bandsOf.get(path)!)) }

  /** Bands are worked out when somebody looks at them. */
  function decidingOn(path: FieldPath, bands: () => readonly Band[]): Deciding {
    let known: readonly Band[] | undefined
    return {
      path,
      settles: settledShare(path, leaves),
      get bands() {
        return (known ??= bands())
      },
    }
  }
}

/** Share of an unknown's tried values at which every leaf that agrees with it has the same verdict. */
function settledShare(path: FieldPath, leaves: readonly Leaf[]): number {
  const byValue = new Map<unknown, VerdictSet>()
  let without = 0
  for (const { assumed, verdicts: found } of leaves) {
    if (assumed.has(path)) byValue.set(assumed.get(path), (byValue.get(assumed.get(path)) ?? 0) | found)
    else without |= found
  }
  return [...byValue.values()].filter((found) => isSingle(found | without)).length / byValue.size
}

/** The verdict along one unknown's range, others usual, with the edges between found by bisection. */
function scan(check: Explorable, path: FieldPath, { bandPoints, bisections }: Effort): Band[] {
  const at = (value: unknown): Verdict => check.judge(new Map([[path, value]])).verdict
  const bands: Band[] = []
  for (const value of check.samples(path, bandPoints)) {
    const verdict = at(value)
    const last = bands.at(-1)
    if (typeof value !== 'number') {
      bands.push({ from: value as string, to: value as string, verdict })
    } else if (last?.verdict === verdict) {
      bands[bands.length - 1] = { ...last, to: value }
    } else {
      const edge =
        last === undefined
          ? value
          : edgeBetween(last.to as number, value, bisections, (middle) => at(middle) === last.verdict)
      if (last !== undefined) bands[bands.length - 1] = { ...last, to: edge }
      bands.push({ from: edge, to: value, verdict })
    }
  }
  return bands
}

function edgeBetween(
  low: number,
  high: number,
  bisections: number,
  isBefore: (value: number) => boolean,
): number {
  for (let i = 0; i < bisections; i++) {
    const middle = (low + high) / 2
    if (isBefore(middle)) low = middle
    else high = middle
  }
  return Number(high.toPrecision(5))
}
