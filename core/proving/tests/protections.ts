import { unitsOf } from '../rig'
import { ampsTest, answerTest, stateIn, type Bench } from './make'
import { listed } from '#core/units/format'
import type { ProofTest } from './test'

/** Title, what is done, and the minutes it takes. */
const answered = {
  'discharge-stop': [
    'Discharge stop acts',
    'Make the battery’s own test, or draw it down to its warning and on: its loads go off before the cells are harmed.',
    3,
  ],
  warning: ['Warning before the cut-off', 'Set the warning above what the bank has now, and hear it.', 1],
  reset: [
    'Battery comes back after a cut-off',
    'Do what its maker says to wake it, and see that the loads come on.',
    1,
  ],
} as const

const lowBatteryWords = {
  warning: 'hear its warning',
  'discharge-stop': 'see its loads go off',
  reset: 'wake it as its maker says',
} as const

/** All that guards against a flat battery, seen in one go. */
function lowBatteryTest(bench: Bench): ProofTest[] {
  const guards = (['warning', 'discharge-stop', 'reset'] as const).filter((id) =>
    bench.rig.protections.includes(id),
  )
  return [
    answerTest({
      id: 'low-battery',
      title: 'Low battery: warning, disconnect and reset',
      group: 'protections',
      state: stateIn(bench, 'rest')!,
      how: `Draw the battery down, or make its own test: ${listed(guards.map((id) => lowBatteryWords[id]))}. Yes where all of it happens, no where something does not.`,
      minutes: guards.reduce((sum, id) => sum + answered[id][2], 0),
      always: true,
      read: (_seen, { dead }) => (guards.some((id) => dead.includes(id)) ? 0 : 1),
    }),
  ]
}

/** What protects the bank, made to act once. */
export function protectionTests(bench: Bench): ProofTest[] {
  const { rig } = bench
  const { network, protections } = rig
  const rest = stateIn(bench, 'rest')!
  const cold = stateIn(bench, 'cold')
  const main = network.runs.find(({ id }) => id === 'main-lead') ?? fromSource(bench)
  const yesNo = (Object.keys(answered) as (keyof typeof answered)[])
    .filter((id) => protections.includes(id))
    .map((id) =>
      answerTest({
        id: `acts-${id}`,
        title: answered[id][0],
        group: 'protections',
        state: rest,
        how: `${answered[id][1]} Yes where it does, no where it does not.`,
        minutes: answered[id][2],
        read: (_seen, { dead }) => (dead.includes(id) ? 0 : 1),
      }),
    )
  return [
    ...(cold && main
      ? [
          ampsTest(
            network,
            main,
            {
              id: 'cold-amps',
              title: 'Current into the bank, its sensor cooled',
              group: 'protections',
              state: cold,
              minutes: 2,
              always: true,
            },
            true,
          ),
        ]
      : []),
    ...lowBatteryTest(bench),
    ...yesNo,
  ]
}

const fromSource = ({ rig }: Bench) => {
  const [source] = unitsOf(rig.network, 'source')
  return rig.network.runs.find(({ to }) => to === source?.plus)
}
