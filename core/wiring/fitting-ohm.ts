import type { Post, PostKind } from './network'

/**
 * Voltage drop of a fitting at its rated current, V: a bolted fuse some 70 mV, a shunt 50 mV, a closed switch or
 * relay some 20 mV (engineering defaults).
 */
const dropsAtRatingV = { fuse: 0.07, shunt: 0.05, switch: 0.02, relay: 0.02, stop: 0.02, plug: 0.03 } as const
/** Rating that is taken for a fitting of which none is known, A. */
const usualA = 200

/** Resistance of a fitting, Ω, by its kind and rating: 0 for a stud. */
export const fittingOhmOf = (kind: PostKind, ratedA: number | null): number =>
  kind in dropsAtRatingV ? dropsAtRatingV[kind as keyof typeof dropsAtRatingV] / (ratedA ?? usualA) : 0

/**
 * The run with which the resistance of a fitting is counted: the first that comes to it, from its battery, from the
 * bar.
 */
export const runWithOhmOf = <R extends { readonly to: string }>(post: string, runs: readonly R[]): R | null =>
  runs.find(({ to }) => to === post) ?? null

/** Runs with the resistance of the fittings they come to. */
export function withFittingOhm<R extends { readonly to: string }>(
  runs: readonly R[],
  posts: readonly Post[],
): (R & { readonly fittingOhm: number })[] {
  const byId = new Map(posts.map((post) => [post.id, post]))
  const counted = new Set<string>()
  return runs.map((run) => {
    const post = byId.get(run.to)
    const isFirst = post !== undefined && !counted.has(post.id)
    if (isFirst) counted.add(post.id)
    return { ...run, fittingOhm: isFirst && post.fitting ? fittingOhmOf(post.kind, post.fitting.ratedA) : 0 }
  })
}
