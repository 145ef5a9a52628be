import { withId } from '#core/collections/held'
import type { Network, Run } from '#core/wiring/network'
import type { Solution } from '#core/circuit/solution'
import type { Rig } from '../rig'
import type { TestState } from '../states'
import { amps, asSeen, volts, type ProofTest } from './test'
import { nameInSentence, joinText } from '#core/units/format'

/** Inputs for the tests of a rig: the rig, its states, and their solutions. */
export interface Bench {
  readonly rig: Rig
  readonly states: readonly TestState[]
  readonly solved: (state: TestState) => Solution
}

export const stateIn = ({ states }: Bench, id: string): TestState | null =>
  states.find((state) => state.id === id) ?? null

/** The state at rest, which every job has. */
export const restOf = ({ states }: Bench): TestState => withId(states, 'rest')

export const postName = ({ posts }: Network, id: string): string =>
  posts.find((post) => post.id === id)?.name ?? id

/** Values of a test that needs no probe, no wait and no run. */
export const plainTest = {
  minutes: 1,
  waits: 0,
  probes: [],
  run: null,
  covers: [],
} as const satisfies Partial<ProofTest>

type Own = Pick<ProofTest, 'id' | 'title' | 'group' | 'state'> & Partial<ProofTest>

/** A voltage between two posts, red on the first. */
export function voltsTest(network: Network, from: string, to: string, own: Own): ProofTest {
  return {
    ...plainTest,
    quantity: 'volts',
    unit: 'V',
    instrument: 'meter',
    how: joinText(
      `Red on ${nameInSentence(postName(network, from))}, `,
      `black on ${nameInSentence(postName(network, to))}.`,
    ),
    probes: [volts(from, to)],
    read: asSeen,
    ...own,
  }
}

/** A current in a run, positive the way that is said. */
export function ampsTest(network: Network, run: Run, own: Own, turned = false): ProofTest {
  const [from, to] = turned ? [run.to, run.from] : [run.from, run.to]
  return {
    ...plainTest,
    quantity: 'amps',
    unit: 'A',
    instrument: 'clamp',
    how: joinText(
      `Clamp around ${run.number}, arrow from ${nameInSentence(postName(network, from))} `,
      `to ${nameInSentence(postName(network, to))}.`,
    ),
    probes: [amps(run.id)],
    read: (seen) => (turned ? -asSeen(seen) : asSeen(seen)),
    run: run.id,
    ...own,
  }
}

/** Something looked at or made to act, that is answered by yes or no: 1 or 0. */
export function answerTest(own: Own & Pick<ProofTest, 'how' | 'read'>): ProofTest {
  return { ...plainTest, quantity: 'answer', unit: '', instrument: 'eye', minutes: 2, ...own }
}
