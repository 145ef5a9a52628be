import { firstOf } from '#core/collections/held'
import { asSpecified } from '#core/job/as-specified'
import { partAt, partId, partName } from '#core/job/document'
import {
  panelId,
  type LineKind,
  type Network,
  type Post,
  type PostKind,
  type Run,
  type WiringUnit,
} from '#core/wiring/network'
import { lengthWords, sizeWords } from '#core/wiring/words'
import { postName } from '../tests/make'
import { inSentence, nameInSentence, listInSentence, joinText } from '#core/units/format'
import type { WorkStep } from './step'
import type { Work } from './work'

/** Fitting steps: battery, parts at the bank, then each branch; fuses stay out. */
export function fitSteps(work: Work): WorkStep[] {
  const { network } = work
  const runs = network.runs.filter(({ state }) => state === 'new')
  const main = runs.filter(({ role }) => role === 'main' || role === 'bond')
  const branches = [...new Set(runs.filter((run) => !main.includes(run)).map(branchOf))]
  return [
    batteryStep(work),
    ...network.units
      .filter((unit) => unit.state === 'new' && unit.kind !== 'battery')
      .map((unit) => unitStep(unit)),
    ...fittingStep(network),
    ...(main.length > 0
      ? [runStep('main', 'Lay the main leads and bolt them down, except at the battery posts.', main, work)]
      : []),
    ...branches.map((of) => {
      const own = runs.filter((run) => !main.includes(run) && branchOf(run) === of)
      const fuses = fusesOf(own, network)
      const name = nameOf(of, work)
      const out = fuses.length > 0 ? `, with no fuse in ${listInSentence(fuses)} yet` : ''
      return runStep(partId(of), `Wire ${name}${out}.`, own, work)
    }),
    ...lineStepsOf(network),
  ]
}

/** The part that a run is laid for, or the panel. */
const branchOf = ({ of }: Run): string => of ?? panelId

function nameOf(of: string, { network: { units }, found }: Work): string {
  const unit = units.find((one) => one.of === of || one.id === of)
  return nameInSentence(
    unit?.name ?? (partAt(asSpecified(found), of) ? partName(asSpecified(found), of) : of),
  )
}

function batteryStep({ after, network }: Work): WorkStep {
  const { each } = after.bank
  const count = network.units.filter((unit) => unit.kind === 'battery' && unit.chemistry === 'lithium').length
  const name = each.$ownName ?? 'the new battery'
  return {
    id: 'fit-battery',
    phase: 'fit',
    words: joinText(
      `Fix ${count > 1 ? `the ${count} batteries (${name})` : name} in `,
      'place as the maker says: strapped, with air around, posts covered.',
    ),
    why: 'It must not move in a sea or a crash, and nothing metal may fall across its posts.',
    caution: 'A short at its posts gives thousands of amperes. Its electronics may not stop it.',
  }
}

const unitStep = (unit: WiringUnit): WorkStep => ({
  id: `fit-unit-${unit.id}`,
  phase: 'fit',
  words: `Mount ${nameInSentence(unit.name)} with air on all sides, away from spray and bilge gas.`,
  why: 'Once the units are mounted you can measure their leads.',
})

function fittingStep({ posts }: Network): WorkStep[] {
  const fitted = posts.filter(({ state, fitting }) => state === 'new' && fitting !== null)
  if (fitted.length === 0) return []
  return [
    {
      id: 'fit-fittings',
      phase: 'fit',
      words: `Mount ${listInSentence(kindsOf(fitted))} as drawn. Leave every fuse out.`,
      why: 'A fuse is the last thing to close a circuit.',
      numbers: fitted.flatMap(({ fitting }) => (fitting?.number ? [fitting.number] : [])),
    },
  ]
}

/** Parts to mount, in the order in which a bench is laid out. */
const mountedWords: readonly (readonly [kinds: readonly PostKind[], one: string, several: string])[] = [
  [['bar'], 'the bar', 'bars'],
  [['switch'], 'the switch', 'switches'],
  [['relay'], 'the relay', 'relays'],
  [['stop'], 'the contactor', 'contactors'],
  [['shunt'], 'the shunt', 'shunts'],
  [['plug'], 'the plug', 'plugs'],
  [['fuse'], 'the fuse holder', 'fuse holders'],
]
function kindsOf(fitted: readonly Post[]): string[] {
  return mountedWords.flatMap(([kinds, one, several]) => {
    const count = fitted.filter(({ kind }) => kinds.includes(kind)).length
    return count === 0 ? [] : [count === 1 ? one : several]
  })
}

const fusesOf = (runs: readonly Run[], { posts }: Network): string[] =>
  posts
    .filter(
      (post: Post) => post.kind === 'fuse' && runs.some(({ from, to }) => from === post.id || to === post.id),
    )
    .flatMap(({ fitting }) => (fitting?.number ? [fitting.number] : []))

function runStep(id: string, words: string, runs: readonly Run[], { after: { q }, network }: Work): WorkStep {
  const list = runs
    .filter(({ areaMm2 }) => areaMm2 !== null)
    .map((run) => `${run.number} ${sizeWords(run, q)}, ${lengthWords(run, q)}`)
  return {
    id: `fit-runs-${id}`,
    phase: 'fit',
    words: `${words} ${list.length > 0 ? `${list.join('; ')}.` : ''}`.trim(),
    why:
      id === 'main'
        ? 'Until the battery posts are connected nothing you touch is live.'
        : joinText(
            `It starts at ${nameInSentence(postName(network, firstOf(runs).from))}. `,
            'Clamp it every 300 mm, crimp the lugs and torque ',
            'them to the maker’s figure: a loose lug heats up.',
          ),
    numbers: runs.map(({ number }) => number),
  }
}

/** Runs of each kind of line, and the reason. */
const lineSteps: Readonly<
  Record<LineKind, { readonly id: string; readonly words: string; readonly why: string }>
> = {
  run: {
    id: 'fit-run-signals',
    words: 'Run each running signal through its own small fuse, live only while the engine runs',
    why: 'Without it the unit stays off. On a wire that is always live it drains the starting battery.',
  },
  stop: {
    id: 'fit-signals',
    words: 'Run the stop lines',
    why: 'The battery must be able to stop its chargers before its own electronics disconnect it.',
  },
  sense: {
    id: 'fit-sense',
    words: 'Run the sense leads. Put each fuse holder at the battery post and leave its fuse out',
    why: joinText(
      'A long lead shows less voltage than the battery has. ',
      'If a sense lead comes off, the regulator charges too high.',
    ),
  },
}

function lineStepsOf({ lines }: Network): WorkStep[] {
  return (['run', 'stop', 'sense'] as const).flatMap((kind) => {
    const fresh = lines.filter((line) => line.kind === kind && line.state === 'new')
    if (fresh.length === 0) return []
    const { id, words, why } = lineSteps[kind]
    const named = fresh.map(({ number, name }) => `${number}, ${inSentence(name)}`)
    return [
      {
        id,
        phase: 'fit' as const,
        words: `${words}: ${named.join('; ')}.`,
        why,
        numbers: fresh.map(({ number }) => number),
      },
    ]
  })
}
