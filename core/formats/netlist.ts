import { elementAt } from '#core/collections/held'
import type { Circuit } from '#core/circuit/circuit'

/** A name as a netlist may hold it: every character that is no letter, digit or `_` becomes `_`. */
export const netlistName = (id: string): string => id.replace(/[^A-Za-z0-9_]/g, '_')

/**
 * A circuit as a standard SPICE netlist: node names are the post ids, ground is `0`, each run a resistor `R_` and its
 * id, units as behavioural current sources by their law.
 * @param title its first line, a description
 * @param start where a solver may begin, V, by node
 */
export function writeNetlist(
  { nodes, ground, resistors, elements }: Circuit,
  title: string,
  start: ReadonlyMap<string, number>,
): string {
  const name = (node: string): string => (node === ground ? '0' : netlistName(node))
  const volts = (node: string): string => (node === ground ? '0' : `V(${netlistName(node)})`)
  const sources = elements.flatMap(({ id, nodes: at, law }) =>
    law.behaves(at.map(volts)).map(({ from, into, formula }, i, { length }) => {
      const own = `B_${netlistName(id)}${length > 1 ? `_${i + 1}` : ''}`
      return `${own} ${name(elementAt(at, from))} ${name(elementAt(at, into))} I=${formula}`
    }),
  )
  const free = nodes
    .filter((node) => node !== ground)
    .map((node) => `V(${netlistName(node)})=${start.get(node) ?? 0}`)
  return [
    `* ${title.replace(/\s+/g, ' ')}`,
    ...resistors.map(
      ({ id, from, to, ohm }) => `R_${netlistName(id)} ${name(from)} ${name(to)} ${ohm.toPrecision(15)}`,
    ),
    ...sources,
    '.options reltol=1e-7 abstol=1e-9 vntol=1e-9 itl1=1000',
    ...free.map((start) => `.nodeset ${start}`),
    '.op',
    '.end',
    '',
  ].join('\n')
}
