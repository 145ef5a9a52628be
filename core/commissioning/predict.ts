import { elementAt, entryOf, firstOf, lastOf, withId } from '#core/collections/held'
import type { Circuit, Element, Resistor } from '#core/circuit/circuit'
import { startOf } from '#core/wiring/circuits'
import { Solver, type Change, type Solution, type SolverStep } from '#core/circuit/solution'
import { deviationOf } from './meters'
import { movedRig, movedUnit, parametersOf, type Parameter } from './parameters'
import type { Prediction, Slopes } from './prediction'
import { rigOf, type Rig } from './rig'
import { steadyOf } from './steady'
import { circuitIn, elementsIn, wholeCircuit, standingDraw } from './circuit'
import { statesOf, type TestState } from './states'
import { testsOf } from './tests/index'
import type { Bench } from './tests/make'
import type { ProofTest } from './tests/test'
import type { JobDocument } from '#core/job/document'
import type { ShopSettings } from '#core/system/system'

/** The calculated values of a rig in one state. */
interface InState {
  readonly solution: Solution
  readonly predictions: ReadonlyMap<string, Prediction>
}

/**
 * Differences are taken this many deviations to either side: with the three points of Gauss and Hermite the variance
 * is then exact for linear effects and close for others, such as a regulator at its limit.
 */
const farSide = Math.sqrt(3)
/** A slope of less than this share of the instrument’s own deviation is none. */
const worthOf = 0.02
/** Two solutions are one where nothing differs by more, V. */
const sameV = 1e-9

/** A job to prove: its rig, states, tests, and expected readings. */
export class Proof {
  readonly rig: Rig
  readonly states: readonly TestState[]
  readonly tests: readonly ProofTest[]
  readonly parameters: readonly Parameter[]
  readonly bench: Bench
  private readonly solver: Solver
  private readonly sound = new Map<string, InState>()
  private readonly byState: ReadonlyMap<string, readonly ProofTest[]>

  constructor(job: JobDocument, shop: ShopSettings = {}) {
    this.rig = rigOf(job, shop)
    this.states = statesOf(this.rig)
    this.solver = new Solver(wholeCircuit(this.rig))
    this.parameters = parametersOf(this.rig)
    const known = new Map<string, Solution>()
    const solved = (state: TestState): Solution => {
      const solution = known.get(state.id) ?? this.solve(this.rig, state).solution
      known.set(state.id, solution)
      return solution
    }
    this.bench = { rig: this.rig, states: this.states, solved }
    const all = testsOf(this.bench)
    this.byState = byStateOf(this.states, all)
    const { tests, astray } = steadyOf(all, this)
    this.tests = tests
    this.bendBy(astray)
  }

  /** Nonlinear effects of several parameters together count as well, where they are larger. */
  private bendBy(astray: ReadonlyMap<string, number>): void {
    for (const [state, { solution, predictions }] of this.sound) {
      const bent = [...predictions].map(
        ([id, one]) => [id, { ...one, bent: Math.max(one.bent, entryOf(astray, id)) }] as const,
      )
      this.sound.set(state, { solution, predictions: new Map(bent) })
    }
  }

  test(id: string): ProofTest | null {
    return this.tests.find((test) => test.id === id) ?? null
  }

  /** The readings of a test on a sound rig. */
  expected(test: ProofTest): Prediction {
    return entryOf(this.inState(this.rig, test.state).predictions, test.id)
  }

  /** The readings of all tests of a state on a rig, with their slopes. */
  inState(rig: Rig, state: TestState): InState {
    const sound = rig === this.rig ? this.sound.get(state.id) : undefined
    if (sound) return sound
    const found = this.work(rig, state)
    if (rig === this.rig) this.sound.set(state.id, found)
    return found
  }

  /** The exact reading of each test on a rig, by id: for simulated instruments. */
  readings(rig: Rig, tests: readonly ProofTest[]): Map<string, number> {
    const solutions = new Map<string, Solution>()
    return new Map(
      tests.map((test) => {
        const solution = solutions.get(test.state.id) ?? this.solve(rig, test.state).solution
        solutions.set(test.state.id, solution)
        return [test.id, test.read(seenBy(test, solution), rig)]
      }),
    )
  }

  /** The readings of a test's probes on a rig. */
  seen(rig: Rig, test: ProofTest): number[] {
    return seenBy(test, this.solve(rig, test.state).solution)
  }

  private solve(rig: Rig, state: TestState): { readonly circuit: Circuit; readonly solution: Solution } {
    const circuit = circuitIn(rig, state)
    return { circuit, solution: this.solveNear(circuit, rig, state) }
  }

  /** Starts from the solution of a sound rig; if that does not converge, from the set voltages of the sources. */
  private solveNear(circuit: Circuit, rig: Rig, state: TestState): Solution {
    const near = this.sound.get(state.id)?.solution.volts
    if (!near) return this.solver.solve(circuit, startOf(rig.network, state.at))
    try {
      return this.solver.solve(circuit, near)
    } catch {
      return this.solver.solve(circuit, heldBySources(rig, near))
    }
  }

  /**
   * Predictions of a sound rig use central differences in each parameter. Those of a fault use one step from its own
   * solution, with the curvature of the sound rig, because there are hundreds of faults.
   */
  private work(rig: Rig, state: TestState): InState {
    const { circuit, solution } = this.solve(rig, state)
    const tests = this.byState.get(state.id) ?? []
    const sound = this.sound.get(state.id)
    const predict = sound
      ? this.byOneStep(rig, state, circuit, solution, sound)
      : this.byDifferences(rig, state, circuit, solution)
    return { solution, predictions: new Map(tests.map((test) => [test.id, predict(test)])) }
  }

  private byDifferences(rig: Rig, state: TestState, circuit: Circuit, solution: Solution): Predict {
    const sides = this.parameters.map((parameter) =>
      [farSide, -farSide].map((side) => {
        const changed = changedBy(parameter, side, rig, state, circuit)
        const solved = changed ? this.solver.solve(put(circuit, changed), solution.volts) : solution
        return { step: stepOf(solved), rig: movedRig(rig, parameter, side) }
      }),
    )
    return (test) => {
      const value = test.read(seenBy(test, solution), rig)
      const least = worthOf * deviationOf(test.instrument, value)
      const [at, by]: [number[], number[]] = [[], []]
      let bent = 0
      sides.forEach((pair, i) => {
        const off = pair.map((side) => test.read(probed(test, side.step), side.rig) - value)
        const [up, down] = [firstOf(off), lastOf(off)]
        const slope = (up - down) / (2 * farSide)
        bent += Math.max(0, (up ** 2 + down ** 2) / 6 - slope ** 2)
        if (Math.abs(slope) < least) return
        at.push(i)
        by.push(slope)
      })
      return { value, slopes: { at, by }, bent }
    }
  }

  private byOneStep(
    rig: Rig,
    state: TestState,
    circuit: Circuit,
    solution: Solution,
    sound: InState,
  ): Predict {
    // If a fault does not change the currents, the slopes are those of a sound rig.
    const moved = isSame(solution, sound.solution) ? null : this.moved(rig, state, circuit, solution)
    return (test) => {
      const seen = seenBy(test, solution)
      const value = test.read(seen, rig)
      const known = entryOf(sound.predictions, test.id)
      const slopes = moved ? this.slopesOf(test, rig, seen, value, moved) : known.slopes
      return { value, slopes, bent: known.bent }
    }
  }

  /** Solutions with each parameter moved by a standard deviation, for parameters that matter. */
  private moved(rig: Rig, state: TestState, circuit: Circuit, solution: Solution): Map<number, SolverStep> {
    const changes = this.parameters.flatMap((parameter, i) => {
      const changed = changedBy(parameter, 1, rig, state, circuit)
      return changed ? [{ i, changed, wholly: isKinked(parameter, rig) }] : []
    })
    const nearly = changes.filter(({ wholly }) => !wholly)
    const steps = this.solver.stepsFrom(
      circuit,
      solution,
      nearly.map(({ changed }) => changed),
    )
    return new Map([
      ...nearly.map(({ i }, k) => [i, elementAt(steps, k)] as const),
      ...changes
        .filter(({ wholly }) => wholly)
        .map(
          ({ i, changed }) => [i, stepOf(this.solver.solve(put(circuit, changed), solution.volts))] as const,
        ),
    ])
  }

  private slopesOf(
    test: ProofTest,
    rig: Rig,
    seen: readonly number[],
    value: number,
    moved: ReadonlyMap<number, SolverStep>,
  ): Slopes {
    const [at, by]: [number[], number[]] = [[], []]
    const least = worthOf * deviationOf(test.instrument, value)
    this.parameters.forEach((parameter, i) => {
      const step = moved.get(i)
      const ofReading = isOfReading(parameter, test)
      if (!step && !ofReading) return
      const now = test.read(step ? probed(test, step) : seen, ofReading ? movedRig(rig, parameter, 1) : rig)
      const slope = now - value
      if (Math.abs(slope) < least) return
      at.push(i)
      by.push(slope)
    })
    return { at, by }
  }
}

/** A source of an open path stays at its own voltage. */
function heldBySources({ network }: Rig, near: ReadonlyMap<string, number>): Map<string, number> {
  const start = new Map(near)
  for (const unit of network.units)
    if (unit.kind === 'dcdc' || unit.kind === 'source' || unit.kind === 'alternator') {
      const ends = network.runs.filter(({ from, to }) => from === unit.plus || to === unit.plus)
      for (const post of [unit.plus, ...ends.flatMap(({ from, to }) => [from, to])])
        start.set(post, entryOf(start, unit.minus) + unit.setV - regulatorV)
    }
  return start
}
/** A regulator delivers some current if the voltage is this far below its setting, V. */
const regulatorV = 0.02

function byStateOf(states: readonly TestState[], tests: readonly ProofTest[]): Map<string, ProofTest[]> {
  const byState = new Map<string, ProofTest[]>(states.map(({ id }) => [id, []]))
  for (const test of tests) entryOf(byState, test.state.id).push(test)
  return byState
}

type Predict = (test: ProofTest) => Prediction

/** Whether a parameter acts directly on the reading, not only through the currents. */
const isOfReading = ({ kind }: Parameter, { quantity, probes }: ProofTest): boolean =>
  quantity === 'celsius' ? kind === 'heat' || kind === 'unit' : probes.length === 0 && kind === 'panels'

/** The readings of a test's probes. */
const probed = ({ probes }: ProofTest, { voltsAt, ampsIn }: SolverStep): number[] =>
  probes.map((probe) =>
    probe.kind === 'volts' ? voltsAt(probe.from) - voltsAt(probe.to) : ampsIn(probe.run),
  )
const stepOf = ({ volts, amps }: Solution): SolverStep => ({
  voltsAt: (node) => entryOf(volts, node),
  ampsIn: (run) => amps.get(run) ?? 0,
})
const seenBy = (test: ProofTest, solution: Solution): number[] => probed(test, stepOf(solution))

/** A battery with different charge and discharge resistance rests at a kink, where a single step misleads. */
function isKinked(parameter: Parameter, { network }: Rig): boolean {
  if (parameter.kind !== 'unit') return false
  const unit = network.units.find(({ id }) => id === parameter.unit)
  return unit?.kind === 'battery' && unit.ohm !== unit.chargingOhm
}

/** A circuit with some of it changed. */
function put(circuit: Circuit, { resistors, elements }: Change): Circuit {
  const changed = new Map([...resistors, ...elements].map((one) => [one.id, one]))
  return {
    ...circuit,
    resistors: circuit.resistors.map((one) => (changed.get(one.id) as Resistor | undefined) ?? one),
    elements: circuit.elements.map((one) => (changed.get(one.id) as Element | undefined) ?? one),
  }
}

function isSame(one: Solution, other: Solution): boolean {
  for (const [node, volts] of one.volts)
    if (Math.abs(volts - entryOf(other.volts, node)) > sameV) return false
  return true
}

/** The part of a circuit that a parameter changes; null if it changes nothing. */
function changedBy(
  parameter: Parameter,
  side: number,
  rig: Rig,
  state: TestState,
  circuit: Circuit,
): Change | null {
  switch (parameter.kind) {
    case 'run': {
      const run = circuit.resistors.find(({ id }) => id === parameter.run)
      return run ? { resistors: [moreOhm(run, side * parameter.sd)], elements: [] } : null
    }
    case 'unit': {
      if (!circuit.elements.some(({ id }) => id === parameter.unit)) return null
      const unit = withId(rig.network.units, parameter.unit)
      const moved = movedUnit(unit, parameter, side)
      return { resistors: [], elements: elementsIn(moved, rig, state).filter(isThere(circuit)) }
    }
    case 'standing': {
      const elements = standingDraw(movedRig(rig, parameter, side), state).filter(isThere(circuit))
      return { resistors: [], elements }
    }
    default:
      return null
  }
}

const moreOhm = (run: Resistor, ohm: number): Resistor => ({ ...run, ohm: run.ohm + ohm })
const isThere =
  (circuit: Circuit) =>
  ({ id }: Element): boolean =>
    circuit.elements.some((element) => element.id === id)
