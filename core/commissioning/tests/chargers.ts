import { fieldOf, present } from '#core/collections/held'
import type { SourceUnit } from '#core/wiring/network'
import { unitsOf } from '../rig'
import { type Bench, ampsTest, answerTest, restOf, stateIn, voltsTest } from './make'
import { nameInSentence, joinText } from '#core/units/format'
import type { ProofTest } from './test'

/** Each source into the bank: current in bulk, voltage in absorption, behaviour afterwards. */
export const chargerTests = (bench: Bench): ProofTest[] =>
  unitsOf(bench.rig.network, 'source').flatMap((source) => [
    ...panelTest(bench, source),
    ...stringsTest(bench, source),
    ...inState(bench, source, 'charge'),
    ...inState(bench, source, 'absorb'),
    ...inState(bench, source, 'float'),
    ...inState(bench, source, 'stop'),
  ])

const titles = {
  charge: { volts: 'Volts of', amps: 'Current of', words: 'in bulk' },
  absorb: { volts: 'Volts of', amps: 'Current of', words: 'in absorption' },
  float: { volts: 'Volts of', amps: 'Current of', words: 'in float' },
  stop: { volts: 'Volts of', amps: 'Current of', words: 'once the charge stop acts' },
} as const

function inState(bench: Bench, source: SourceUnit, stage: keyof typeof titles): ProofTest[] {
  const { network } = bench.rig
  const { id, name, plus, minus } = source
  const state = stateIn(bench, `${stage}-${id}`)
  if (!state) return []
  const { words, ...begins } = titles[stage]
  const group = stage === 'stop' ? 'protections' : 'chargers'
  const feed = present(network.runs.find(({ id: run }) => run === `${id}-feed`))
  const current = ampsTest(
    network,
    feed,
    {
      id: `${stage}-amps-${id}`,
      title: `${begins.amps} ${nameInSentence(name)} ${words}`,
      group,
      state,
    },
    feed.to === plus,
  )
  if (stage === 'stop') return [{ ...current, always: true }]
  // At the battery posts, because that voltage reaches the cells.
  const atBattery = voltsTest(network, 'bank-plus', 'bank-minus', {
    id: `${stage}-battery-${id}`,
    title: `Voltage at the battery, ${nameInSentence(name)} ${words}`,
    group,
    state,
    ...(stage === 'absorb' ? { always: true } : {}),
  })
  const voltage = voltsTest(network, plus, minus, {
    id: `${stage}-volts-${id}`,
    title: `${begins.volts} ${nameInSentence(name)} ${words}`,
    group,
    state,
  })
  return stage === 'float' ? [voltage, current] : [atBattery, voltage, current]
}

/** Strings of panels side by side: one with its fuse open carries nothing. */
function stringsTest(bench: Bench, { id, name }: SourceUnit): ProofTest[] {
  const panels = bench.rig.panels[id]
  const state = stateIn(bench, `charge-${id}`)
  if (!panels || panels.strings < 2 || !state) return []
  return [
    answerTest({
      id: `strings-${id}`,
      title: `Strings of ${nameInSentence(name)} share the current`,
      group: 'chargers',
      state,
      how: joinText(
        `Clamp each of the ${panels.strings} strings in turn. `,
        'Yes if all carry about the same, no if one carries nothing.',
      ),
      instrument: 'clamp',
      read: (_seen, rig) => (fieldOf(rig.panels, id).dark === 0 ? 1 : 0),
    }),
  ]
}

/** Panels before their controller, by themselves: a string the wrong way round shows a minus. */
function panelTest(bench: Bench, { id, name, plus }: SourceUnit): ProofTest[] {
  if (!bench.rig.panels[id]) return []
  const state = restOf(bench)
  return [
    {
      ...voltsTest(bench.rig.network, plus, plus, {
        id: `panels-${id}`,
        title: `Open-circuit voltage of the panels of ${nameInSentence(name)}`,
        group: 'chargers',
        state,
      }),
      how: 'Disconnect the panels from the controller. Red on their plus, black on their minus.',
      minutes: 3,
      probes: [],
      read: (_seen, rig) => fieldOf(rig.panels, id).openV,
    },
  ]
}
