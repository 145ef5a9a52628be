import { elementAt, entryOf, firstOf } from '#core/collections/held'
import type { Case } from './cases'
import type { Circuit, Element } from '#core/circuit/circuit'
import { boltedOhm, type Circuits } from './circuits'
import type { Joints } from './joints'
import { resistance, type Law } from '#core/circuit/law'
import type { DiodeUnit, Network, Post } from './network'
import type { Solution, Solver } from '#core/circuit/solution'

/** Which of the diodes let current through, in their order. */
type Pattern = readonly boolean[]
type VoltsAt = (node: string) => number

/** A short changes which diodes conduct. After this many rounds the circuit is solved iteratively. */
const mostPatterns = 8

/**
 * Currents of a bolted short at each positive post, with every source feeding it, A. All sources of a short are
 * linear except diodes, and a diode is linear on either side of its kink. So it follows from Thévenin, with the
 * pattern of diodes that the short itself leaves.
 */
export function shortsOf(network: Network, circuits: Circuits, joints: Joints): ReadonlyMap<string, number> {
  const shorted = network.posts.filter(({ pole }) => pole === 'positive')
  const [first] = shorted
  if (!first) return new Map()
  const at: Case = { id: `short-${first.id}`, kind: 'short', name: '' }
  const { solver } = joints
  const whole = circuits.in(at)
  const open = { ...whole, elements: whole.elements.filter(({ id }) => id !== 'short') }
  const diodes = network.units.filter((unit): unit is DiodeUnit => unit.kind === 'diode')
  const standing = joints.solved(open, network, at)
  const found = new Map<string, number>()
  let waiting = [{ pattern: patternAt(diodes, voltsIn(standing)), posts: shorted }]
  for (let round = 0; round < mostPatterns && waiting.length > 0; round++) {
    const others = new Map<string, { readonly pattern: Pattern; readonly posts: Post[] }>()
    for (const { pattern, posts } of waiting) {
      const linear = withDiodes(open, diodes, pattern)
      const rest = solver.solve(linear, standing.volts)
      const lifts = solver.liftsOf(
        linear,
        rest,
        posts.map(({ id, opposite }) => [id, opposite]),
      )
      posts.forEach((post, i) => {
        const { amps, volts } = shortAt(post, voltsIn(rest), elementAt(lifts, i))
        const left = patternAt(diodes, volts)
        if (left.every((on, k) => on === pattern[k])) found.set(post.id, amps)
        else {
          const key = left.join()
          const alike = others.get(key) ?? { pattern: left, posts: [] }
          others.set(key, alike)
          alike.posts.push(post)
        }
      })
    }
    waiting = [...others.values()]
  }
  for (const post of waiting.flatMap(({ posts }) => posts))
    found.set(post.id, shortSolved(post, open, { solver, standing }))
  return found
}

const voltsIn =
  ({ volts }: Solution): VoltsAt =>
  (node) =>
    entryOf(volts, node)

const patternAt = (diodes: readonly DiodeUnit[], volts: VoltsAt): Pattern =>
  diodes.map(({ plus, out, dropV }) => volts(plus) - volts(out) > dropV)

/** The circuit with each diode linear, conducting or blocking. */
function withDiodes(circuit: Circuit, diodes: readonly DiodeUnit[], pattern: Pattern): Circuit {
  if (diodes.length === 0) return circuit
  const isOn = new Map(diodes.map(({ id }, i) => [id, elementAt(pattern, i)]))
  const elements = circuit.elements.map((element): Element => {
    const on = isOn.get(element.id)
    return on === undefined ? element : { ...element, law: onOneSide(element.law, on) }
  })
  return { ...circuit, elements }
}

/** Far on either side of the kink of any diode, V. */
const farV = 100

/** A law of two terminals that is linear on both sides of a kink, continued from one of them. */
function onOneSide(law: Law, isOn: boolean): Law {
  const there = isOn ? [farV, 0] : [-farV, 0]
  const slopes = law.slopes(there)
  const flows = firstOf(law.amps(there))
  const slope = firstOf(firstOf(slopes))
  const amps = (u: number): number => flows + slope * (u - firstOf(there))
  return {
    ...law,
    amps: (volts) => {
      const i = amps(elementAt(volts, 0) - elementAt(volts, 1))
      return [i, -i]
    },
    slopes: () => slopes,
  }
}

/** A short at a post of a linear circuit: its current, A, and the remaining voltages. */
function shortAt({ id, opposite }: Post, rest: VoltsAt, lift: VoltsAt): { amps: number; volts: VoltsAt } {
  const between = rest(id) - rest(opposite)
  const amps = between / (Math.abs(lift(id) - lift(opposite)) + boltedOhm)
  return { amps: Math.abs(amps), volts: (node) => rest(node) - amps * lift(node) }
}

/** The same, solved as it is. */
function shortSolved(
  { id, opposite }: Post,
  open: Circuit,
  { solver, standing }: { readonly solver: Solver; readonly standing: Solution },
): number {
  const short: Element = { id: 'short', nodes: [id, opposite], law: resistance(boltedOhm) }
  const { volts } = solver.solve({ ...open, elements: [...open.elements, short] }, standing.volts)
  return Math.abs(entryOf(volts, id) - entryOf(volts, opposite)) / boltedOhm
}
