import { unitsOf } from '../rig'
import { type Bench, ampsTest, answerTest, restOf, stateIn } from './make'
import { listInSentence, joinText } from '#core/units/format'
import type { ProofTest } from './test'

/** Title, action and minutes. */
const answered = {
  'discharge-stop': [
    'Discharge stop acts',
    joinText(
      'Start the battery’s own test, or discharge it past its warning. ',
      'The loads must go off before the cells are harmed.',
    ),
    3,
  ],
  warning: ['Warning before the cut-off', 'Set the warning above the present charge. You must hear it.', 1],
  reset: [
    'Battery comes back after a cut-off',
    'Reset it as the maker describes. The loads must come on.',
    1,
  ],
} as const

const lowBatteryWords = {
  warning: 'you hear the warning',
  'discharge-stop': 'the loads go off',
  reset: 'it comes back after the maker’s reset',
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
      state: restOf(bench),
      how: joinText(
        'Discharge the battery, or start its own test: ',
        `${listInSentence(guards.map((id) => lowBatteryWords[id]))}. `,
        'Yes if all of this happens, no if one does not.',
      ),
      minutes: guards.reduce((sum, id) => sum + answered[id][2], 0),
      always: true,
      read: (_seen, { dead }) => (guards.some((id) => dead.includes(id)) ? 0 : 1),
    }),
  ]
}

/** The protections of the bank, each made to act once. */
export function protectionTests(bench: Bench): ProofTest[] {
  const { rig } = bench
  const { network, protections } = rig
  const rest = restOf(bench)
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
        how: `${answered[id][1]} Yes if it does, no if it does not.`,
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
              title: 'Charging current with the sensor cooled',
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
