import { asSpecified } from '#core/job/as-specified'
import { partAt, partName } from '#core/job/document'
import type { Network, Post, Run, Unit } from '#core/network/network'
import { lengthWords, sizeWords } from '#core/network/words'
import { postName } from '../tests/make'
import { inside } from '#core/units/format'
import type { Step } from './step'
import { startersOf, type Work } from './work'

/** What is fitted: battery, what stands at the bank, then one branch after another; fuses stay out. */
export function fitSteps(work: Work): Step[] {
  const { network } = work
  const runs = network.runs.filter(({ state }) => state === 'new')
  const main = runs.filter(({ role }) => role === 'main' || role === 'bond')
  const branches = [
    ...new Set(runs.filter((run) => !main.includes(run)).map(({ of, id }) => of ?? prefixOf(id))),
  ]
  return [
    batteryStep(work),
    ...network.units
      .filter((unit) => unit.state === 'new' && unit.kind !== 'battery')
      .map((unit) => unitStep(unit)),
    ...fittingStep(network),
    ...(main.length > 0
      ? [
          runStep(
            'main',
            'Lay the main leads and bolt them down, all but the ends at the battery’s posts.',
            main,
            work,
          ),
        ]
      : []),
    ...branches.map((of) => {
      const own = runs.filter((run) => !main.includes(run) && (run.of ?? prefixOf(run.id)) === of)
      const fuses = fusesOf(own, network)
      const name = nameOf(of, work)
      const out =
        fuses.length > 0
          ? `, ${fuses.join(' and ')} without ${fuses.length > 1 ? 'their fuses' : 'its fuse'}`
          : ''
      return runStep(prefixOf(of.split('/').at(-1)!), `Wire up: ${name}${out}.`, own, work)
    }),
    ...runningSignalSteps(work),
    ...signalStep(network),
    ...(startersOf(work).some(({ jumpSwitch }) => jumpSwitch === 'yes')
      ? [
          {
            id: 'fit-jump-switch',
            phase: 'fit' as const,
            words:
              'Take the switch or the link between starting battery and house bank out, and cap both leads.',
            why: 'It joins lead to lithium whenever somebody presses it, with nothing to hold the current.',
          },
        ]
      : []),
  ]
}

const prefixOf = (id: string): string => id.replace(/-(stub|feed|return)$/, '')

function nameOf(of: string, { network: { units }, found }: Work): string {
  const unit = units.find((one) => one.of === of || one.id === of)
  return inside(unit?.name ?? (partAt(asSpecified(found), of) ? partName(asSpecified(found), of) : of))
}

function batteryStep({ after, network }: Work): Step {
  const { each } = after.bank
  const count = network.units.filter((unit) => unit.kind === 'battery' && unit.chemistry === 'lithium').length
  const name = each.$ownName ?? 'the new battery'
  return {
    id: 'fit-battery',
    phase: 'fit',
    words: `Fix ${count > 1 ? `the ${count} batteries (${name})` : name} in place: upright as its maker says, strapped, air around, posts covered.`,
    why: 'It must not move in a sea or a crash, and nothing metal may fall across its posts.',
    caution:
      'Its electronics do not always stop a short at the posts: it gives thousands of amperes at once.',
  }
}

const unitStep = (unit: Unit): Step => ({
  id: `fit-unit-${unit.id}`,
  phase: 'fit',
  words: `Mount ${inside(unit.name)}, its sides free for air, away from spray and bilge gas.`,
  why: 'What is mounted first shows how long its leads must be.',
})

function fittingStep({ posts }: Network): Step[] {
  const fitted = posts.filter(({ state, fitting }) => state === 'new' && fitting !== null)
  if (fitted.length === 0) return []
  return [
    {
      id: 'fit-fittings',
      phase: 'fit',
      words: 'Mount bars, switches, shunt and fuse holders where the drawing has them, every fuse left out.',
      why: 'A fuse is the last thing to close a circuit.',
      numbers: fitted.flatMap(({ fitting }) => (fitting!.number ? [fitting!.number] : [])),
    },
  ]
}

const fusesOf = (runs: readonly Run[], { posts }: Network): string[] =>
  posts
    .filter(
      (post: Post) => post.kind === 'fuse' && runs.some(({ from, to }) => from === post.id || to === post.id),
    )
    .flatMap(({ fitting }) => (fitting?.number ? [fitting.number] : []))

function runStep(id: string, words: string, runs: readonly Run[], { after: { q }, network }: Work): Step {
  const list = runs
    .filter(({ areaMm2 }) => areaMm2 !== null)
    .map((run) => `${run.number} ${sizeWords(run, q)}, ${lengthWords(run, q)}`)
  const [first] = runs
  return {
    id: `fit-runs-${id}`,
    phase: 'fit',
    words: `${words} ${list.length > 0 ? `${list.join('; ')}.` : ''}`.trim(),
    why:
      id === 'main'
        ? 'Until the battery’s posts are joined nothing that is touched is live.'
        : `From ${inside(postName(network, first!.from))} on, clamped every hand’s breadth, lugs crimped and torqued to their maker’s figure.`,
    numbers: runs.map(({ number }) => number),
  }
}

function runningSignalSteps({ after, network }: Work): Step[] {
  return after.many.links
    .filter(({ kind, signal }) => kind === 'dcdc' && signal === 'wire')
    .flatMap(({ $path, $name }) => {
      const unit = network.units.find(({ of, kind }) => of === $path && kind === 'dcdc')
      if (unit?.state !== 'new') return []
      return [
        {
          id: `fit-signal-${unit.id}`,
          phase: 'fit' as const,
          words: `Bring the running signal to its terminal: ${inside($name)}, by a small fuse of its own, live only while the engine runs.`,
          why: 'Without it the unit stays off; on a wire that is always live it empties the starting battery.',
        },
      ]
    })
}

function signalStep({ signals }: Network): Step[] {
  const fresh = signals.filter(({ state }) => state === 'new')
  if (fresh.length === 0) return []
  return [
    {
      id: 'fit-signals',
      phase: 'fit',
      words: `Run the stop lines: ${fresh.map(({ number, name }) => `${number}, ${inside(name.replace(/^C/, 'c'))}`).join('; ')}.`,
      why: 'The battery must be able to stop what charges it, before its own electronics part it from everything.',
      numbers: fresh.map(({ number }) => number),
    },
  ]
}
