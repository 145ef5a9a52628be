/** A box seen from above, mm. */
export interface Footprint {
  readonly widthMm: number
  readonly depthMm: number
}
export interface Placed extends Footprint {
  readonly xMm: number
  readonly yMm: number
  readonly turned: boolean
}

/**
 * Places equal batteries on the floor of a space, side by side, none stacked: rows in one direction, and rows
 * turned by 90° in the rest of the space. Every split between the two is tried, both ways; the first that holds all
 * wins.
 * @param space inside measures, mm
 * @param battery with terminals, mm (above 0)
 * @param count batteries, 1 or more
 * @param gapMm air around each battery, mm (0 or more): kept to walls and between neighbours
 * @returns the place of each, or null if they do not fit
 */
export function placeInside(
  space: Footprint,
  battery: Footprint,
  count: number,
  gapMm: number,
): readonly Placed[] | null {
  const [w, d] = [battery.widthMm, battery.depthMm]
  const grid = (x: number, width: number, turned: boolean, most: number): Placed[] => {
    const [bw, bd] = turned ? [d, w] : [w, d]
    const columns = Math.floor((width + 1e-6) / (bw + gapMm))
    const rows = Math.floor((space.depthMm - gapMm + 1e-6) / (bd + gapMm))
    return Array.from({ length: Math.max(0, Math.min(most, columns * rows)) }, (_, i) => ({
      xMm: x + gapMm + (i % columns) * (bw + gapMm),
      yMm: gapMm + Math.floor(i / columns) * (bd + gapMm),
      widthMm: bw,
      depthMm: bd,
      turned,
    }))
  }
  const width = space.widthMm - gapMm
  for (const turned of [false, true]) {
    const bw = (turned ? d : w) + gapMm
    for (let columns = Math.floor((width + 1e-6) / bw); columns >= 0; columns--) {
      const first = grid(0, columns * bw, turned, count)
      const placed = [...first, ...grid(columns * bw, width - columns * bw, !turned, count - first.length)]
      if (placed.length === count) return placed
    }
  }
  return null
}
