import { nameInSentence } from '#core/units/format'
import type { Network } from './network'

/** A state of the system in which its wiring is looked at. */
export interface Case {
  /** `cruise`, `charge-charger-1`, `short-bar-plus`. */
  readonly id: string
  readonly name: string
  readonly kind: 'loads' | 'charge' | 'engine' | 'together' | 'rest' | 'cranking' | 'short'
}

/** The id of all loads on a rested battery. */
export const restedLoads = 'loads-rested'

const named = (words: string, name: string): string => `${words} ${nameInSentence(name)}`

/** Every case of a network, in the order in which it is looked at; last a short at each positive post. */
export function casesOf(network: Network): Case[] {
  const { units, posts } = network
  const cases: Case[] = []
  if (units.some(({ kind }) => kind === 'load' || kind === 'inverter'))
    cases.push({ id: 'loads', kind: 'loads', name: 'All loads, nothing charging' })
  // On a low battery a thin cable stops an inverter that draws all its power from a full one.
  if (units.some(({ kind }) => kind === 'inverter'))
    cases.push({ id: restedLoads, kind: 'loads', name: 'All loads on a rested battery' })
  for (const unit of units)
    if (unit.kind === 'source')
      cases.push({ id: `charge-${unit.id}`, kind: 'charge', name: named('Charging from', unit.name) })
  const engines = units.some(({ kind }) => kind === 'alternator')
  if (engines)
    cases.push(
      { id: 'idle', kind: 'engine', name: 'Engine at idle' },
      { id: 'cruise', kind: 'engine', name: 'Engine at cruise' },
    )
  if (engines || units.some(({ kind }) => kind === 'source'))
    cases.push({ id: 'together', kind: 'together', name: 'All sources together' })
  cases.push({ id: 'rest', kind: 'rest', name: 'At rest' })
  for (const unit of units)
    if (unit.kind === 'starter')
      cases.push({ id: `cranking-${unit.id}`, kind: 'cranking', name: named('Cranking with', unit.name) })
  for (const post of posts)
    if (post.pole === 'positive')
      cases.push({ id: `short-${post.id}`, kind: 'short', name: `A short at ${post.name}` })
  return cases
}

/** The case of a name; null if the network has none of it. */
export const caseOf = (network: Network, id: string): Case | null =>
  casesOf(network).find((one) => one.id === id) ?? null

/** Whether an engine runs in a case. */
export const runsEngine = ({ kind }: Pick<Case, 'kind'>): boolean =>
  kind === 'engine' || kind === 'together' || kind === 'short'
