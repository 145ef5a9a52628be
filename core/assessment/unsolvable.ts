import { elementAt } from '#core/collections/held'
import type { FieldPath } from '#core/job/document'
import { partKindIds, type Range } from '#core/job/fields'
import type { Facts } from '#core/system/facts'
import type { Reads } from '#core/system/reads'
import { word, type Judgement } from './check'

interface OddValue {
  readonly path: FieldPath
  /** As it is named to the reader: `the starting battery: health by tester 0 %`. */
  readonly words: string
  readonly usual: Range
  /** Distance outside the plausible range, as a multiple of that range. */
  readonly farOut: number
}
const mostNamed = 3

/** The entered values furthest outside their plausible range, the furthest first. */
function oddValues(facts: Facts, reads: Reads): OddValue[] {
  const odd = partKindIds.flatMap((kind) =>
    facts.partsOf(kind).flatMap((part) =>
      part.fields.flatMap(([name, field], index): OddValue[] => {
        const value = facts.entered(part, name, reads)
        if (field.type !== 'quantity' || typeof value !== 'number') return []
        const [least, most] = facts.plausible(part, index, reads)
        const farOut = Math.max(least - value, value - most) / Math.max(most - least, 1e-9)
        const words = `${part.name}: ${field.label.toLowerCase()} ${facts.q(value, field.unit)}`
        return farOut > 0 ? [{ path: elementAt(part.paths, index), words, usual: [least, most], farOut }] : []
      }),
    ),
  )
  return odd.toSorted((a, b) => b.farOut - a.farOut).slice(0, mostNamed)
}

/** The finding for values without a solution: it names them, so that they are checked again. */
export function unsolvable(facts: Facts, reads: Reads): Judgement {
  const odd = oddValues(facts, reads)
  const named = odd.map(({ words }) => words).join('; ') || 'the values entered'
  return {
    verdict: 'measure-first',
    compared: [word('result', 'none'), word('look again at', named)],
    limit: { kind: 'physics', text: 'no run or circuit has a solution with these values' },
    formula: () => `no result with ${named}`,
    summary: () => `This cannot be calculated from these values: ${named}. Check them.`,
    asks: odd.map(({ path, usual: [from, to] }) => ({ path, from, to })),
  }
}
