/** Thrown where values lead nowhere: a run that never ends, a circuit that does not come to rest. */
export class Unsolvable extends Error {
  override readonly name = 'Unsolvable'
}
