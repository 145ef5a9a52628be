import { withId } from '#core/collections/held'
import { type Bench } from '#core/commissioning/tests/make'
import { nameInSentence } from '#core/units/format'
import { unitsOf } from '#core/commissioning/rig'
import { runSignal, stopSignal } from '#core/commissioning/signals'
import { withOne, type Fault, type FaultPlace } from './fault'

const dead = (rig: Parameters<Fault['change']>[0], id: string) => ({ ...rig, dead: withOne(rig.dead, id) })

function signalled({ rig: { network, signalWires } }: Bench): FaultPlace[] {
  const relays = network.relays.map(({ post }) => ({
    at: post,
    where: `at ${nameInSentence(withId(network.posts, post).name)}`,
  }))
  const units = unitsOf(network, 'dcdc')
    .filter(({ id }) => signalWires.includes(id))
    .map(({ id, name }) => ({ at: id, where: `at ${nameInSentence(name)}` }))
  return [...relays, ...units]
}

const noSignal: Fault = {
  id: 'no-signal',
  title: 'No run signal',
  prior: 3,
  unit: '',
  scale: 'each',
  harm: 'nuisance',
  places: signalled,
  change: (rig, at) => dead(rig, runSignal(at)),
  mend: 'Follow the signal wire back to its fuse and its plug. Check that it is live only with the key on.',
}

const noStop: Fault = {
  id: 'no-charge-stop',
  title: 'Charge stop signal missing',
  prior: 2,
  unit: '',
  scale: 'each',
  harm: 'damage',
  places: ({ rig: { network } }) =>
    unitsOf(network, 'source')
      .filter(({ of }) => network.lines.some((line) => line.kind === 'stop' && line.of === of))
      .map(({ id, name }) => ({ at: id, where: `at ${nameInSentence(name)}` })),
  change: (rig, at) => dead(rig, stopSignal(at)),
  mend: 'Follow the stop wire from the battery to the source. Check whether its contact opens or closes.',
}

const protectionNames: Readonly<Record<string, string>> = {
  'discharge-stop': 'of the discharge stop',
  warning: 'of the warning before the cut-off',
  reset: 'of the reset',
}

const noProtection: Fault = {
  id: 'protection-dead',
  title: 'Protection does not act',
  prior: 1,
  unit: '',
  scale: 'each',
  harm: (_bench, at) => (at === 'discharge-stop' ? 'damage' : 'stranded'),
  places: ({ rig }) =>
    rig.protections
      .filter((id) => protectionNames[id])
      .map((id) => ({ at: id, where: `at the test ${protectionNames[id]}` })),
  change: (rig, at) => dead(rig, at),
  mend: 'Check its settings and its wire. Repeat the test before you hand the job over.',
}

const sensorOff: Fault = {
  id: 'sensor',
  title: 'Temperature sensor off or in the wrong place',
  prior: 2,
  unit: '',
  scale: 'each',
  harm: 'damage',
  places: ({ rig }) =>
    rig.protections.includes('cold-gate') ? [{ at: 'bank', where: 'at the battery' }] : [],
  change: (rig) => dead(rig, 'cold-gate'),
  mend: 'Find the sensor and fix it to the battery.',
}

export default [noSignal, noStop, noProtection, sensorOff]
