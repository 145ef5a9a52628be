import { withId } from '#core/collections/held'
import { barsOf } from '#core/commissioning/circuit'
import { type Bench } from '#core/commissioning/tests/make'
import { nameInSentence } from '#core/units/format'
import { unitsOf } from '#core/commissioning/rig'
import { stepsBetween, withOne, type Fault, type FaultPlace } from './fault'
import { runWhere } from './joints'

/** Drop of an isolator that was left in, V: from a low-loss one to silicon that is hot and full. */
const isolatorV = stepsBetween(0.1, 1.1, 9)
/** A link that joins two batteries, with its lugs, mΩ (engineering default). */
const linkMohm = [1, 3, 10] as const

/** Runs through which an alternator’s side feeds the house. */
function feedsFromEngine({ rig: { network } }: Bench): FaultPlace[] {
  return network.runs
    .filter(({ of, role, like }) => of?.startsWith('links/') && role === 'charge' && like === null)
    .filter(({ of }) => !network.units.some((unit) => unit.kind === 'diode' && unit.of === of))
    .map((run) => ({ at: run.id, where: runWhere({ rig: { network } } as Bench, run), sizes: isolatorV }))
}

const diodeLeftIn: Fault = {
  id: 'diode-left-in',
  title: 'Diode isolator left in',
  prior: 1,
  unit: 'V',
  scale: 'apart',
  harm: 'nuisance',
  places: feedsFromEngine,
  change: (rig, at, dropV) => ({ ...rig, diodes: { ...rig.diodes, [at]: dropV } }),
  mend: 'Remove the isolator and join its cables as drawn.',
}

const jumpLink: Fault = {
  id: 'jump-link',
  title: 'Jump link left in',
  prior: 1.5,
  unit: 'mΩ',
  scale: 'each',
  harm: 'fire',
  places: ({ rig: { network } }) =>
    unitsOf(network, 'battery')
      .filter(({ serves, plus }) => serves === 'engine' && isParted(network, plus))
      .map(({ id, name }) => ({
        at: id,
        where: `between the house and ${nameInSentence(name)}`,
        sizes: linkMohm,
      })),
  change: (rig, at, mOhm) => {
    const battery = withId(unitsOf(rig.network, 'battery'), at)
    const { plus } = barsOf(rig.network)
    return { ...rig, stray: [...rig.stray, { from: battery.plus, to: plus, ohm: mOhm / 1000 }] }
  },
  mend: 'Remove the jump link or the jump switch. Only the specified link joins house and engine.',
}

/** Batteries of one voltage alone can be joined by a link. */
function isParted({ posts }: Bench['rig']['network'], plus: string): boolean {
  const voltage = (id: string): number => posts.find((post) => post.id === id)?.nominalV ?? 0
  return voltage(plus) === voltage('bank-plus')
}

const shuntReversed: Fault = {
  id: 'shunt-reversed',
  title: 'Reversed connections',
  prior: 2,
  unit: '',
  scale: 'each',
  harm: 'stranded',
  places: ({ rig: { monitor } }) => (monitor ? [{ at: 'shunt', where: 'at the shunt' }] : []),
  change: (rig) => ({ ...rig, monitor: rig.monitor && { ...rig.monitor, sign: -1 } }),
  mend: 'Turn the shunt round, or swap its two sense wires.',
}

export const shuntBypassed: Fault = {
  id: 'shunt-bypassed',
  title: 'Negative cable bypasses the shunt',
  prior: 2,
  unit: '',
  scale: 'each',
  harm: 'stranded',
  places(bench) {
    const { monitor, network } = bench.rig
    if (!monitor) return []
    const bars = network.posts.filter(
      ({ kind, pole, fitting }) => kind === 'bar' && pole === 'negative' && fitting,
    )
    return network.runs
      .filter(
        ({ role, to, returnOf }) =>
          role === 'return' && returnOf !== null && bars.some(({ id }) => id === to),
      )
      .map((run) => ({ at: run.id, where: runWhere(bench, run) }))
  },
  change: (rig, at) => ({ ...rig, pastShunt: withOne(rig.pastShunt, at) }),
  mend: 'Move this negative cable to the bar on the load side of the shunt.',
}

export default [diodeLeftIn, jumpLink, shuntReversed, shuntBypassed]
