import { elementAt, entryOf } from '#core/collections/held'
import { Unsolvable } from '#core/physics/unsolvable'
import type { Circuit, Element, Resistor } from './circuit'
import { SparseEquations } from './sparse'

/** A solved circuit. */
export interface Solution {
  /** Voltage of each node against the ground, V. */
  readonly volts: ReadonlyMap<string, number>
  /** Current through each resistor from its first node to its second, A. */
  readonly amps: ReadonlyMap<string, number>
  /** Largest sum of currents at a node that is not zero, A. */
  readonly residualA: number
}

/** Currents at a node add up to less, A. */
const exactA = 1e-7
/** Worse is a fault of a law, A. */
const worstA = 1e-3
const mostSteps = 800
/**
 * Steps after which units that draw more the lower their voltage are stepped as resistances: slower, and never
 * astray.
 */
const patience = 40
/**
 * Steps after which a unit that gives all it has, and so has no slope, counts as this much, A/V: into a way that is
 * open its steps would be endless.
 */
const restartAfterIterations = 200
const shortStepSiemens = 50
/** A search this close to the solution, A, goes on past its restart, up to `mostIterations`. */
const nearA = 0.05
const mostIterations = 500
const mostTrials = 40
/** A step need not be exact: its end is flat enough at this share of how steep it began. */
const flatEnough = 0.1

/**
 * Voltages and currents of a circuit: nodal analysis, with Newton's steps for the nonlinear units. Every law is
 * continuous. Except for a load of constant power above half of its supply, each current falls with its own
 * voltage, so there is one solution, and the steps end at it.
 * @param start initial voltages, V: the solution does not depend on them
 * @throws Error if the iteration does not converge
 */
export const solveCircuit = (circuit: Circuit, start: Start): Solution =>
  new Solver(circuit).solve(circuit, start)

/** Resistors and elements that replace those with the same ids. */
export type Change = Pick<Circuit, 'resistors' | 'elements'>
/** Voltages and currents after a step. */
export interface SolverStep {
  readonly voltsAt: (node: string) => number
  readonly ampsIn: (run: string) => number
}

/** Voltages from which a search begins, V, by node; zero if there is none. */
export type Start = ReadonlyMap<string, number>

interface Joined {
  readonly a: number
  readonly b: number
  readonly siemens: number
}
interface Placed {
  readonly at: readonly number[]
  readonly law: Element['law']
}
type Slopes = ReturnType<Element['law']['slopes']>
/** A circuit by the places of its nodes among the unknowns. */
interface Numbered {
  readonly resistors: readonly Joined[]
  readonly elements: readonly Placed[]
}

/**
 * Solves circuits with the same connections and different values and units: the elimination order is calculated once.
 */
export class Solver {
  /** Places of the nodes among the unknowns; the ground has none, -1. */
  private readonly place: ReadonlyMap<string, number>
  private readonly size: number
  private readonly equations: SparseEquations

  /** @param whole a circuit with everything that any of the others has */
  constructor(whole: Circuit) {
    const unknowns = whole.nodes.filter((node) => node !== whole.ground)
    this.size = unknowns.length
    this.place = new Map([[whole.ground, -1], ...unknowns.map((node, i) => [node, i] as const)])
    this.equations = new SparseEquations(this.size, pairsOf(this.numbered(whole)))
  }

  private placeOf(node: string): number {
    const place = this.place.get(node)
    if (place === undefined) throw new Error(`No node ${node} in this circuit`)
    return place
  }

  private numbered({ resistors, elements }: Circuit): Numbered {
    return {
      resistors: resistors.map(({ from, to, ohm }) => ({
        a: this.placeOf(from),
        b: this.placeOf(to),
        siemens: 1 / ohm,
      })),
      elements: elements.map(({ nodes, law }) => ({ at: nodes.map((node) => this.placeOf(node)), law })),
    }
  }

  /** Voltages in the order of the unknowns. */
  private inOrder(volts: Start): Float64Array {
    const values = new Float64Array(this.size)
    for (const [node, place] of this.place) if (place >= 0) values[place] = volts.get(node) ?? 0
    return values
  }
  /** The voltage of a node among those in the order of the unknowns; that of the ground is zero. */
  private voltsOf(values: Float64Array, node: string): number {
    const place = this.placeOf(node)
    return place < 0 ? 0 : values[place]!
  }

  solve(circuit: Circuit, start: Start): Solution {
    const numbered = this.numbered(circuit)
    const first = this.inOrder(start)
    let volts: Float64Array = first
    let sums = this.sumsAt(numbered, volts)
    let worst = largest(sums)
    let isShort = false
    for (let step = 0; step < mostSteps && worst > exactA; step++) {
      // If the steps diverged, it starts again with shorter ones.
      if (
        (step === restartAfterIterations && worst > nearA) ||
        (step === mostIterations && !isShort && worst > worstA)
      ) {
        isShort = true
        volts = first
        sums = this.sumsAt(numbered, volts)
      }
      const leastSiemens = isShort ? shortStepSiemens : step < patience ? null : 0
      const change = this.newtonStep(numbered, volts, sums, leastSiemens)
      const share = this.shareOf(numbered, volts, sums, change)
      volts = moved(volts, change, share)
      sums = this.sumsAt(numbered, volts)
      worst = largest(sums)
    }
    if (!(worst < worstA)) throw new Unsolvable(`The circuit does not come to rest: ${worst} A are left over`)
    return this.solution(circuit, volts, worst)
  }

  /**
   * By how much an ampere that is pushed in at one node and drawn out at another lifts each node, V, in a circuit
   * whose units are all linear. The equations are put in order once for all pairs.
   */
  liftsOf(
    circuit: Circuit,
    { volts }: Solution,
    pairs: readonly (readonly [into: string, outOf: string])[],
  ): ((node: string) => number)[] {
    const at = this.inOrder(volts)
    this.newtonStep(this.numbered(circuit), at, new Float64Array(this.size), null)
    return pairs.map(([into, outOf]) => {
      const right = new Float64Array(this.size)
      const [a, b] = [this.placeOf(into), this.placeOf(outOf)]
      if (a >= 0) right[a]! -= 1
      if (b >= 0) right[b]! += 1
      const lifted = this.equations.solveAgain(right)
      return (node) => this.voltsOf(lifted, node)
    })
  }

  /**
   * The results of several small changes of a circuit: one Newton step from its solution each, with the equations
   * ordered once for all.
   * @param changes changed resistors and elements of the circuit, by id
   */
  stepsFrom(circuit: Circuit, { volts }: Solution, changes: readonly Change[]): SolverStep[] {
    const numbered = this.numbered(circuit)
    const at = this.inOrder(volts)
    this.newtonStep(numbered, at, new Float64Array(this.size), null)
    const resistors = new Map(circuit.resistors.map((resistor) => [resistor.id, resistor]))
    const placeOf = new Map(circuit.elements.map(({ id }, i) => [id, i]))
    const flows = ({ from, to, ohm }: Resistor, values: Float64Array): number =>
      (this.voltsOf(values, from) - this.voltsOf(values, to)) / ohm
    return changes.map(({ resistors: changed, elements }) => {
      const before = elements.map(({ id }) => elementAt(numbered.elements, entryOf(placeOf, id)))
      const after = this.numbered({ ...circuit, resistors: [], elements })
      const was = this.sumsAt({ resistors: [], elements: before }, at)
      const is = this.sumsAt(after, at)
      const right = was.map((sum, i) => sum - is[i]!)
      // A resistance counts by its own change: more of it in a run that is fed a current drops this much more.
      const lessA = new Map(
        changed.map(({ id, ohm }) => {
          const own = entryOf(resistors, id)
          return [id, (flows(own, at) * (ohm - own.ohm)) / own.ohm] as const
        }),
      )
      for (const [id, amps] of lessA) {
        const { from, to } = entryOf(resistors, id)
        const [a, b] = [this.placeOf(from), this.placeOf(to)]
        if (a >= 0) right[a]! -= amps
        if (b >= 0) right[b]! += amps
      }
      const change = this.equations.solveAgain(right)
      return {
        voltsAt: (node) => this.voltsOf(at, node) + this.voltsOf(change, node),
        ampsIn: (run) => {
          const own = resistors.get(run)
          return own ? flows(own, at) + flows(own, change) - (lessA.get(run) ?? 0) : 0
        },
      }
    })
  }

  /**
   * The fraction of a step that is taken. The solution is the minimum of the network's heat. Along a step the heat
   * falls and then rises: the step goes to its lowest point, or in full if it still falls there. Otherwise steps
   * leap back and forth over the kinks of units at their limit.
   */
  private shareOf(numbered: Numbered, volts: Float64Array, sums: Float64Array, change: Float64Array): number {
    const fallAt = (share: number): number =>
      product(this.sumsAt(numbered, moved(volts, change, share)), change)
    const first = product(sums, change)
    if (!(first > 0) || fallAt(1) >= -flatEnough * first) return 1
    let [low, high] = [0, 1]
    for (let halving = 0; halving < mostTrials; halving++) {
      const share = (low + high) / 2
      const fall = fallAt(share)
      if (Math.abs(fall) < flatEnough * first) return share
      if (fall > 0) low = share
      else high = share
    }
    return (low + high) / 2
  }

  /** Sum of the currents into each node, A: zero in a solution. */
  private sumsAt({ resistors, elements }: Numbered, volts: Float64Array): Float64Array {
    const sums = new Float64Array(this.size)
    const at = (place: number): number => (place < 0 ? 0 : volts[place]!)
    for (const { a, b, siemens } of resistors) {
      const amps = (at(a) - at(b)) * siemens
      if (a >= 0) sums[a]! -= amps
      if (b >= 0) sums[b]! += amps
    }
    for (const { at: places, law } of elements) {
      const amps = law.amps(places.map(at))
      places.forEach((place, i) => {
        if (place >= 0) sums[place]! += amps[i]!
      })
    }
    return sums
  }

  private newtonStep(
    { resistors, elements }: Numbered,
    volts: Float64Array,
    sums: Float64Array,
    leastSiemens: number | null,
  ): Float64Array {
    const { equations } = this
    const { values } = equations
    values.fill(0)
    const add = (row: number, column: number, slope: number): void => {
      if (row >= 0 && column >= 0) values[equations.at(row, column)]! += slope
    }
    for (const { a, b, siemens } of resistors) {
      add(a, a, -siemens)
      add(b, b, -siemens)
      add(a, b, siemens)
      add(b, a, siemens)
    }
    for (const { at: places, law } of elements) {
      const exact = law.slopes(places.map((place) => (place < 0 ? 0 : volts[place]!)))
      const slopes = leastSiemens === null ? exact : resistiveSlopes(exact, leastSiemens)
      places.forEach((row, i) => {
        places.forEach((column, k) => {
          add(row, column, slopes[i]![k]!)
        })
      })
    }
    return equations.solve(sums.map((sum) => -sum))
  }

  private solution({ nodes, resistors }: Circuit, volts: Float64Array, residualA: number): Solution {
    const at = (node: string): number => this.voltsOf(volts, node)
    return {
      volts: new Map(nodes.map((node) => [node, at(node)])),
      amps: new Map(resistors.map(({ id, from, to, ohm }) => [id, (at(from) - at(to)) / ohm])),
      residualA,
    }
  }
}

/** The slopes of a unit as if each pair of its terminals were a resistance. */
function resistiveSlopes(slopes: Slopes, leastSiemens: number): Slopes {
  return slopes.map((row, i) =>
    row.map((_, k) => {
      const pair = i & ~1
      if ((k & ~1) !== pair) return 0
      const g = Math.max(leastSiemens, Math.abs(slopes[pair]![pair]!))
      return i === k ? -g : g
    }),
  )
}

function* pairsOf({ resistors, elements }: Numbered): Generator<readonly [number, number]> {
  for (const { a, b } of resistors) if (a >= 0 && b >= 0) yield [a, b]
  for (const { at } of elements) for (const a of at) for (const b of at) if (a >= 0 && b >= 0) yield [a, b]
}

const moved = (volts: Float64Array, change: Float64Array, share: number): Float64Array =>
  volts.map((v, i) => v + share * change[i]!)

const product = (a: Float64Array, b: Float64Array): number =>
  a.reduce((sum, value, i) => sum + value * b[i]!, 0)

function largest(values: Float64Array): number {
  let most = 0
  for (const value of values) {
    const size = Math.abs(value)
    // NaN is the worst.
    if (!(size <= most)) most = Number.isNaN(size) ? Infinity : size
  }
  return most
}
