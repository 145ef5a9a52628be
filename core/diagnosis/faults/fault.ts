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
  /** Sizes it may have, from small to large, as likely one as the other; none where it has no size. */
  readonly sizes?: readonly number[]
  /** How much more likely it is here than elsewhere, as a multiple. */
  readonly times?: number
}

/** Something that may be wrong, with its prior, what it changes, and its words. */
export interface Fault {
  readonly id: string
  /** What is wrong, as it goes on with a place: `Poor joint` in W3. */
  readonly title: string
  /** How often it is met at one place, against the other faults (engineering default). */
  readonly prior: number
  readonly unit: Quantity
  /** Sizes lie each as many times the last, this many apart, or stand for themselves. */
  readonly scale: 'times' | 'apart' | 'each'
  /** What it can do where it stays hidden; by place and size where that decides. */
  readonly harm: Harm | ((bench: Bench, at: string, size: number) => Harm)
  readonly places: (bench: Bench) => readonly FaultPlace[]
  readonly change: (rig: Rig, at: string, size: number) => Rig
  /** What of it an eye or a hand finds on the way round, whatever is read: how often, by which test, and what is there then. */
  readonly onRound?: {
    readonly share: number
    readonly test: (at: string) => string
    readonly mark: (rig: Rig, at: string) => Rig
  }
  /** What is done about it. */
  readonly mend: string
}

/** What a fault of a size can do at a place. */
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

/** The usual sizes next to one: this many of the next smaller and of the next larger. */
export const sizesBeside = (
  sizes: readonly number[],
  own: number,
  [below, above]: readonly [number, number],
): number[] => [
  ...sizes.filter((size) => size < own).slice(-below),
  ...sizes.filter((size) => size > own).slice(0, above),
]
