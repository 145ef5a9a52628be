import { present } from '#core/collections/held'
import { casesOf, restedLoads, type Case } from '#core/wiring/cases'
import { nameInSentence } from '#core/units/format'
import type { SourceUnit } from '#core/wiring/network'
import { isKeeper, unitsOf, type Rig } from './rig'

/** Actions on the system during a test. */
export type Doing =
  | { readonly kind: 'nothing' }
  /** Every battery alone, its leads off. */
  | { readonly kind: 'apart' }
  | { readonly kind: 'switched-off' }
  /** The bank nearly full, held at the set voltage of a source; or an hour later. */
  | { readonly kind: 'absorbing' | 'floating'; readonly source: string }
  /** The battery’s sensor made cold. */
  | { readonly kind: 'cold' }
  /** The battery’s charge stop triggered. */
  | { readonly kind: 'stopped' }
  /** The run signal disconnected. */
  | { readonly kind: 'no-signal' }

/** A state of the system in which something is read. */
export interface TestState {
  /** `loads`, `charge-charger-1`, `absorb-charger-1`: the id of the network’s case without further action. */
  readonly id: string
  /** The switched-on units, in words. */
  readonly name: string
  readonly at: Case
  readonly doing: Doing
  /** Minutes until it is set up from rest, waiting with them. */
  readonly minutes: number
}

/**
 * The name of a state on the command line. A battery has another charge on the day of proving than in the
 * case of the network of the same kind: it is charged, then used a little.
 */
export const provedCase = ({ id }: TestState): string => `proved-${id}`

const nothing: Doing = { kind: 'nothing' }

/**
 * Minutes until a case is set up from rest, and until a bank is nearly full, or an hour after (engineering defaults).
 */
const setUpMinutes: Readonly<Record<Case['kind'], number>> = {
  rest: 1,
  loads: 2,
  charge: 3,
  engine: 5,
  together: 6,
  cranking: 3,
  short: 0,
}
const fullMinutes = 20
const floatMinutes = 30

/** Every state in which something of a rig is read. */
export function statesOf(rig: Rig): TestState[] {
  const cases = casesOf(rig.network).filter(
    // Loads are tested once, at the charge the battery has by then.
    ({ kind, id }) => kind !== 'short' && kind !== 'together' && id !== restedLoads,
  )
  const at = (id: string): Case | null => cases.find((one) => one.id === id) ?? null
  return [
    ...cases.map((one) => ({
      id: one.id,
      name: nameOf(one),
      at: one,
      doing: nothing,
      minutes: setUpMinutes[one.kind],
    })),
    ...restingStates(rig, present(at('rest'))),
    ...unitsOf(rig.network, 'source').flatMap((source) =>
      sourceStates(rig, source, present(at(`charge-${source.id}`))),
    ),
    ...engineStates(rig, at('cruise')),
    ...coldState(
      rig,
      cases.find(({ kind }) => kind === 'charge'),
    ),
  ]
}

/** With everything off: batteries apart, and the main switch open. */
function restingStates({ network }: Rig, at: Case): TestState[] {
  const apart = { kind: 'apart' } as const
  const off = { kind: 'switched-off' } as const
  return [
    { id: 'apart', name: 'Battery leads disconnected', at, doing: apart, minutes: 4 },
    ...(network.posts.some(({ id, kind }) => id === 'main-switch' && kind === 'switch')
      ? [{ id: 'switched-off', name: 'Main switch off', at, doing: off, minutes: 1 }]
      : []),
  ]
}

/** A source at the end of its charge, after it, and stopped by the battery. */
function sourceStates(
  { network, charging }: Rig,
  { id: source, of: part, name, from }: SourceUnit,
  at: Case,
): TestState[] {
  const lower = nameInSentence(name)
  const stages = charging[source]
  const states: TestState[] = []
  const state = (id: string, words: string, doing: Doing, minutes: number): unknown =>
    states.push({ id: `${id}-${source}`, name: words, at, doing, minutes })
  if (stages || from === 'other')
    state('absorb', `Bank nearly full, ${lower} in absorption`, { kind: 'absorbing', source }, fullMinutes)
  if (stages && stages.floatV !== null)
    state('float', `One hour later, ${lower} in float`, { kind: 'floating', source }, floatMinutes)
  if (network.lines.some(({ kind, of }) => kind === 'stop' && of === part))
    state('stop', `Charging from ${lower}, charge stop triggered`, { kind: 'stopped' }, 4)
  return states
}

/** At cruise: each DC-DC at the end of its charge, and without the running signal. */
function engineStates({ network, signalWires }: Rig, at: Case | null): TestState[] {
  if (!at) return []
  const fromEngine = unitsOf(network, 'dcdc').filter((unit) => !isKeeper(unit))
  const full = fromEngine.map(({ id, name }): TestState => ({
    id: `absorb-${id}`,
    name: `Engine at cruise, bank nearly full, ${nameInSentence(name)} in absorption`,
    at,
    doing: { kind: 'absorbing', source: id },
    minutes: fullMinutes,
  }))
  if (signalWires.length === 0 && network.relays.length === 0) return full
  const name = 'Engine at cruise, run signal disconnected'
  return [...full, { id: 'no-signal', name, at, doing: { kind: 'no-signal' }, minutes: 6 }]
}

/** Charging with a cooled battery sensor: the battery must stop the charge. */
function coldState({ protections }: Rig, at: Case | undefined): TestState[] {
  if (!at || !protections.includes('cold-gate')) return []
  const name = `${nameOf(at)}, battery sensor cooled`
  return [{ id: 'cold', name, at, doing: { kind: 'cold' }, minutes: 8 }]
}

const nameOf = ({ kind, name }: Case): string =>
  kind === 'rest'
    ? 'Everything off, main switch on'
    : kind === 'loads'
      ? 'All loads on, nothing charging'
      : name
