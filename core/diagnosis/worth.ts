import { joinText } from '#core/units/format'
import type { Risk } from '#core/commissioning/harm'

const percent = (share: number): string => {
  const value = 100 * share
  return value < 0.05 ? 'under 0.1 %' : `${value < 10 ? value.toFixed(1) : Math.round(value)} %`
}

/** The worth of the readings so far, in words: the number of essential tests, and the risk that is still hidden. */
export const worthWords = (done: number, of: number, { hidden, dangerous }: Risk): string =>
  joinText(
    `${done} of ${of} essential tests done. Chance that a listed fault is still hidden: `,
    `${percent(hidden)}, that a dangerous one is: ${percent(dangerous)}.`,
  )
