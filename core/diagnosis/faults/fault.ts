import type { Unit as Quantity } from '#core/units/units'
import type { Harm } from '#core/commissioning/harm'
import type { Rig } from '#core/commissioning/rig'
import type { Bench } from '#core/commissioning/tests/make'

/** Where a fault may be. */
export interface FaultPlace {
  /** Id of the run, post, unit or battery it is at. */
  readonly at: string
  /** Where that is, in words: `in W3, from the main fuse to the main switch`. */
  readonly where: string
  /** Possible sizes, from small to large, equally likely; left out if it has no size. */
  readonly sizes?: readonly number[]
  /** How much more likely it is here than elsewhere, as a multiple. */
  readonly times?: number
}

/** A possible fault with its prior, its effect and its words. */
export interface Fault {
  readonly id: string
  /** The fault as the start of a sentence with its place: `Poor joint` in W3. */
  readonly title: string
  /** How often it is met at one place, against the other faults (engineering default). */
  readonly prior: number
  readonly unit: Quantity
  /** Spacing of the sizes: by a factor, by a step, or individual values. */
  readonly scale: 'times' | 'apart' | 'each'
  /** Its harm while hidden; by place and size if these matter. */
  readonly harm: Harm | ((bench: Bench, at: string, size: number) => Harm)
  readonly places: (bench: Bench) => readonly FaultPlace[]
  readonly change: (rig: Rig, at: string, size: number) => Rig
  /** Share of cases that the walk-round finds: how often, by which test, and the mark it leaves. */
  readonly onRound?: {
    readonly share: number
    readonly test: (at: string) => string
    readonly mark: (rig: Rig, at: string) => Rig
  }
  /** Its repair. */
  readonly mend: string
}

/** The effect of a fault of one size at one place. */
export const harmOf = ({ harm }: Fault, bench: Bench, at: string, size: number): Harm =>
  typeof harm === 'function' ? harm(bench, at, size) : harm

export const withOne = (list: readonly string[], id: string): readonly string[] => [...list, id]

/** Sizes from one to another, each as many times the last. */
export function timesBetween(least: number, most: number, step = 1.6): number[] {
  const count = Math.max(2, Math.ceil(Math.log(most / least) / Math.log(step)) + 1)
  return Array.from({ length: count }, (_, i) => least * (most / least) ** (i / (count - 1)))
}
/** Sizes from one to another, this many apart. */
export function stepsBetween(least: number, most: number, count: number): number[] {
  return Array.from({ length: count }, (_, i) => least + ((most - least) * i) / (count - 1))
}

/** Neighbouring standard sizes: this many smaller and larger ones. */
export const sizesBeside = (
  sizes: readonly number[],
  own: number,
  [below, above]: readonly [number, number],
): number[] => [
  ...sizes.filter((size) => size < own).slice(-below),
  ...sizes.filter((size) => size > own).slice(0, above),
]
