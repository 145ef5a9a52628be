/**
 * Interrupt rating of fuse and breaker families, A, up to a voltage. From the project's reference table of
 * fuses; a maker's sheet may replace it.
 */
const families = {
  blade: [[32, 1000]],
  'maxi-blade': [[32, 1000]],
  'bolt-down-midi': [[32, 2000]],
  'bolt-down-mega': [[32, 2000]],
  anl: [[32, 6000]],
  'terminal-block': [
    [14, 10_000],
    [32, 5000],
    [58, 2000],
  ],
  'class-t': [[125, 20_000]],
  'thermal-breaker': [
    [14, 3000],
    [48, 1500],
  ],
} as const satisfies Record<string, readonly (readonly [upToV: number, interruptsA: number])[]>

/** Ratings in which fuses are made, A. */
export const fuseSizesA: readonly number[] = [
  1, 2, 3, 5, 7.5, 10, 15, 20, 25, 30, 40, 50, 60, 70, 80, 100, 125, 150, 175, 200, 225, 250, 300, 350, 400,
  500, 600, 800,
]

export type FuseFamily = keyof typeof families

/** The smallest and largest rating of each family, A. */
export const fuseRangeA: Readonly<Record<FuseFamily, readonly [least: number, most: number]>> = {
  blade: [1, 40],
  'maxi-blade': [20, 100],
  'bolt-down-midi': [23, 200],
  'bolt-down-mega': [60, 500],
  anl: [35, 750],
  'terminal-block': [30, 300],
  'class-t': [1, 800],
  'thermal-breaker': [5, 200],
}

/**
 * Current a family usually interrupts at a DC voltage, A; 0 above the voltage it is made for. Above 14 V a
 * thermal breaker is counted at half.
 */
export const fuseInterruptA = (family: FuseFamily, volts: number): number =>
  families[family].find(([upToV]) => volts <= upToV)?.[1] ?? 0

/** Families that stand at a battery, the cheapest first. */
const batteryFamilies: readonly FuseFamily[] = [
  'bolt-down-midi',
  'bolt-down-mega',
  'anl',
  'terminal-block',
  'class-t',
]

/** The cheapest family that has a rating and meets the condition; undefined if there is none. */
export const cheapestFamily = (
  ratedA: number,
  does: (family: FuseFamily) => boolean,
): FuseFamily | undefined =>
  batteryFamilies.find(
    (family) => does(family) && ratedA >= fuseRangeA[family][0] && ratedA <= fuseRangeA[family][1],
  )

/** The most that any family usually interrupts at a DC voltage, A. */
export const mostInterruptA = (volts: number): number =>
  Math.max(...(Object.keys(families) as FuseFamily[]).map((family) => fuseInterruptA(family, volts)))
