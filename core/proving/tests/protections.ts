import { unitsOf } from '../rig'
import { ampsTest, answerTest, stateIn, type Bench } from './make'
import type { ProofTest } from './test'

const answered = {
  'discharge-stop': [
    'Discharge stop acts',
    'Make the battery’s own test, or draw it down to its warning and on: its loads go off before the cells are harmed.',
  ],
  warning: ['Warning before the cut-off', 'Set the warning above what the bank has now, and hear it.'],
  reset: [
    'Battery comes back after a cut-off',
    'Do what its maker says to wake it, and see that the loads come on.',
  ],
} as const

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
        how: `${answered[id][1]} 1 where it does, 0 where it does not.`,
        minutes: 5,
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
              minutes: 4,
            },
            true,
          ),
        ]
      : []),
    ...yesNo,
  ]
}

const fromSource = ({ rig }: Bench) => {
  const [source] = unitsOf(rig.network, 'source')
  return rig.network.runs.find(({ to }) => to === source?.plus)
}
