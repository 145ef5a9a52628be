import type { Law } from './law'

/** What is joined by its resistance alone, Ω above 0. */
export interface Resistor {
  readonly id: string
  readonly from: string
  readonly to: string
  readonly ohm: number
}

/** A unit in a circuit: its law between nodes. */
export interface Element {
  readonly id: string
  readonly nodes: readonly string[]
  readonly law: Law
}

/** A circuit in one case: nodes by name, what joins them, and the node whose voltage is zero. */
export interface Circuit {
  readonly nodes: readonly string[]
  readonly ground: string
  readonly resistors: readonly Resistor[]
  readonly elements: readonly Element[]
}
