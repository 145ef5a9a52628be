import { elementAt } from '#core/collections/held'

/** How the batteries of a parallel bank are joined: equal leads to posts, or links from one to the next. */
type BankLayout = 'single' | 'busbar' | 'diagonal' | 'ladder'

/**
 * Shares of the current in a bank of equal batteries, which sum to 1. Batteries stand in a row, linked
 * positive to positive and negative to negative; the load's leads sit at the same end (`ladder`) or at
 * opposite ends (`diagonal`). Kirchhoff's laws give one equation a link for the summed current of the
 * batteries up to it: a tridiagonal system, solved exactly.
 * @param count batteries, 1 or more
 * @param batteryOhm resistance of each, Ω (above 0)
 * @param linkOhm resistance of one link with its lugs, Ω (0 or more)
 */
export function currentShares(
  count: number,
  batteryOhm: number,
  linkOhm: number,
  layout: BankLayout,
): number[] {
  if (layout === 'single' || layout === 'busbar' || linkOhm === 0 || count < 2)
    return Array.from({ length: count }, () => 1 / count)
  // With S the current of the batteries up to a link: −R·S₋ + (2R + 2r)·S − R·S₊ = r·(2 or 1), S at the end 1.
  const drive = linkOhm * (layout === 'ladder' ? 2 : 1)
  const middle = 2 * batteryOhm + 2 * linkOhm
  const ratio: number[] = []
  const rest: number[] = []
  for (let i = 0; i < count - 1; i++) {
    const known = drive + (i === count - 2 ? batteryOhm : 0)
    const pivot = middle - batteryOhm * (ratio[i - 1] ?? 0)
    ratio.push(batteryOhm / pivot)
    rest.push((known + batteryOhm * (rest[i - 1] ?? 0)) / pivot)
  }
  const sums = Array.from({ length: count }, () => 1)
  for (let i = count - 2; i >= 0; i--)
    sums[i] = elementAt(rest, i) + (i === count - 2 ? 0 : elementAt(ratio, i) * elementAt(sums, i + 1))
  return sums.map((sum, i) => sum - (sums[i - 1] ?? 0))
}

/**
 * Usable current of a bank before its hardest-worked battery reaches its limit, as a share of all together, 0 to 1:
 * mean ÷ largest.
 */
export const worstShare = (count: number, batteryOhm: number, linkOhm: number, layout: BankLayout): number =>
  1 / (count * Math.max(...currentShares(count, batteryOhm, linkOhm, layout)))
