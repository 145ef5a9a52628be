import type { Law } from './law'

/** A resistor between two nodes, Ω above 0. */
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

/** A circuit in one case: named nodes, the elements between them, and the node whose voltage is zero. */
export interface Circuit {
  readonly nodes: readonly string[]
  readonly ground: string
  readonly resistors: readonly Resistor[]
  readonly elements: readonly Element[]
}
