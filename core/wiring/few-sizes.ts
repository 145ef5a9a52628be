import { elementAt } from '#core/collections/held'
import type { Run } from './network'
import type { Ways } from './paths'

/** Whether a run is of cable that is bought in a size calculated here. */
const isSizedNew = ({ state, areaKnown, areaMm2 }: Run): boolean =>
  state === 'new' && areaKnown === 'sized' && areaMm2 !== null

/**
 * No more sizes of new cable than the shop wants in one job: the size whose cable costs least to go up to the next
 * one used does so, repeatedly. Existing cables, sizes set by hand and cables in a plug keep their size.
 */
export function inFewSizes(runs: readonly Run[], ways: Ways, mostSizes: number): readonly Run[] {
  const plugged = new Set(
    runs.flatMap(({ id, from, to }) =>
      [from, to].some((end) => ways.post(end)?.kind === 'plug') ? [id] : [],
    ),
  )
  let now = runs
  for (;;) {
    const used = [
      ...new Set(now.flatMap(({ state, areaMm2 }) => (state === 'new' && areaMm2 ? [areaMm2] : []))),
    ]
    used.sort((a, b) => a - b)
    if (used.length <= mostSizes) return now
    const steps = used.slice(0, -1).map((size, i) => {
      const of = now.filter((run) => run.areaMm2 === size && run.state === 'new')
      const isFree = of.every((run) => isSizedNew(run) && !plugged.has(run.id))
      const metres = of.reduce((sum, { lengthM, count }) => sum + lengthM * count, 0)
      return {
        size,
        next: elementAt(used, i + 1),
        cost: isFree ? metres * (elementAt(used, i + 1) - size) : Infinity,
      }
    })
    const { size, next, cost } = steps.reduce((a, b) => (b.cost < a.cost ? b : a))
    if (cost === Infinity) return now
    now = now.map((run) => (isSizedNew(run) && run.areaMm2 === size ? { ...run, areaMm2: next } : run))
  }
}
