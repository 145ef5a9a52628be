import { fieldOf } from '#core/collections/held'
import { turnable } from '#core/commissioning/tests/quiet'
import { nameInSentence } from '#core/units/format'
import { unitsOf, withUnit } from '#core/commissioning/rig'
import { stepsBetween, timesBetween, withOne, type Fault } from './fault'

const leadsTurned: Fault = {
  id: 'reversed',
  title: 'Leads reversed',
  prior: 1,
  unit: '',
  scale: 'each',
  harm: 'damage',
  places: ({ rig: { network } }) =>
    turnable
      .flatMap((kind) => unitsOf(network, kind))
      .map(({ id, name }) => ({ at: id, where: `at ${nameInSentence(name)}` })),
  change: (rig, at) => ({ ...rig, reversed: withOne(rig.reversed, at) }),
  mend: 'Leave its fuse out. Swap the leads.',
}

export const standingDraw: Fault = {
  id: 'standing-draw',
  title: 'Standing draw with everything off',
  prior: 2,
  unit: 'A',
  scale: 'times',
  harm: 'stranded',
  places: () => [{ at: 'bar-plus', where: 'at the house bank', sizes: timesBetween(0.5, 10, 1.6) }],
  change: (rig, _at, amps) => ({ ...rig, standingA: rig.standingA + amps }),
  mend: 'Pull the branch fuses one by one until the current drops.',
}

const weakAlternator: Fault = {
  id: 'alternator-weak',
  title: 'Low alternator output',
  prior: 1.5,
  unit: '%',
  scale: 'apart',
  harm: 'nuisance',
  places: ({ rig: { network } }) =>
    unitsOf(network, 'alternator').map(({ id, name }) => ({
      at: id,
      where: `at ${nameInSentence(name)}`,
      sizes: stepsBetween(10, 70, 6),
    })),
  change: (rig, at, percent) =>
    withUnit(rig, at, (unit) =>
      unit.kind === 'alternator'
        ? { ...unit, idleA: (unit.idleA * percent) / 100, cruiseA: (unit.cruiseA * percent) / 100 }
        : unit,
    ),
  mend: 'Check the belt, the brushes and the field wires.',
}

const hotAlternator: Fault = {
  id: 'alternator-hot',
  title: 'Alternator overheats: airflow blocked',
  prior: 1,
  unit: 'Δ°C',
  scale: 'apart',
  harm: 'damage',
  places: ({ rig: { heat, network } }) =>
    unitsOf(network, 'alternator')
      .filter(({ id }) => heat[id])
      .map(({ id, name }) => ({
        at: id,
        where: `at ${nameInSentence(name)}`,
        sizes: stepsBetween(25, 60, 4),
      })),
  change: (rig, at, hotterK) => {
    const heat = fieldOf(rig.heat, at)
    return {
      ...rig,
      heat: { ...rig.heat, [at]: { ...heat, riseK: heat.riseK + hotterK, airC: heat.airC + 10 } },
    }
  },
  mend: 'Clear the air path. Reduce the charging current until the case stays cool.',
}

const stringTurned: Fault = {
  id: 'string-reversed',
  title: 'Panel string reversed',
  prior: 1.5,
  unit: '',
  scale: 'each',
  harm: 'damage',
  places: ({ rig: { panels, network } }) =>
    unitsOf(network, 'source')
      .filter(({ id }) => panels[id])
      .map(({ id, name }) => ({ at: id, where: `at ${nameInSentence(name)}` })),
  change: (rig, at) => ({
    ...withUnit(rig, at, (unit) => (unit.kind === 'source' ? { ...unit, mostA: 0 } : unit)),
    panels: { ...rig.panels, [at]: { ...fieldOf(rig.panels, at), openV: -fieldOf(rig.panels, at).openV } },
  }),
  mend: 'Cover the panels and swap the two leads of the string.',
}

const stringShaded: Fault = {
  id: 'string-shaded',
  title: 'Shaded panels',
  prior: 2,
  unit: '%',
  scale: 'apart',
  harm: 'nuisance',
  places: ({ rig: { panels, network } }) =>
    unitsOf(network, 'source')
      .filter(({ id }) => panels[id])
      .map(({ id, name }) => ({
        at: id,
        where: `at ${nameInSentence(name)}`,
        sizes: stepsBetween(5, 50, 4),
      })),
  change: (rig, at, percent) =>
    withUnit(rig, at, (unit) =>
      unit.kind === 'source' ? { ...unit, mostA: (unit.mostA * percent) / 100 } : unit,
    ),
  mend: 'Look for a mast, a rail or leaves that shade the panels. Measure again in full sun.',
}

const stringOpen: Fault = {
  id: 'string-open',
  title: 'Blown fuse in a panel string',
  prior: 1.5,
  unit: '',
  scale: 'each',
  harm: 'nuisance',
  places: ({ rig: { panels, network } }) =>
    unitsOf(network, 'source')
      .filter(({ id }) => panels[id] && panels[id].strings > 1 && panels[id].fused)
      .map(({ id, name }) => ({ at: id, where: `at ${nameInSentence(name)}` })),
  change: (rig, at) => {
    const panels = fieldOf(rig.panels, at)
    const lit = withUnit(rig, at, (unit) =>
      unit.kind === 'source'
        ? { ...unit, mostA: (unit.mostA * (panels.strings - 1)) / panels.strings }
        : unit,
    )
    return { ...lit, panels: { ...rig.panels, [at]: { ...panels, dark: 1 } } }
  },
  mend: 'Cover the panels and find out why the fuse blew before a new one goes in.',
}

export default [
  leadsTurned,
  standingDraw,
  weakAlternator,
  hotAlternator,
  stringTurned,
  stringShaded,
  stringOpen,
]
