import { withId } from '#core/collections/held'
import { fittingPlaces } from '#core/job/parts/network'
import { familyWords } from '#core/job/parts/wiring'
import { torqueWords } from '#core/wiring/lists'
import type { Network, Post, Run } from '#core/wiring/network'
import { capital, inSentence, nameInSentence, joinText } from '#core/units/format'
import { unitsOf, type Rig } from '../rig'
import { type Bench, answerTest, plainTest, postName, restOf } from './make'
import type { ProofTest } from './test'

/** One item of the walk-round: its place, its words, and its tests. */
export interface Look {
  readonly place: string
  readonly words: string
  readonly tests: readonly ProofTest[]
}

/** Places for parts without an entered place, and for displays. */
const noPlace = 'Place not entered'
const atDisplays = 'Settings'
/** The monitor at rest is wrong if it shows more than this, A. */
const restingA = 0.3

/** Everything to check by eye and hand, by place. */
export function looksOf(bench: Bench): Look[] {
  const looks = [
    ...bench.rig.network.posts.flatMap((post) => fittingLook(bench, post)),
    ...bench.rig.network.runs.flatMap((run) => cableLook(bench, run)),
  ]
  const places = [...new Set(looks.map(({ place }) => place))].sort(
    (a, b) => Number(a === noPlace) - Number(b === noPlace),
  )
  return [
    ...places.flatMap((place) => looks.filter((look) => look.place === place)),
    ...displayLooks(bench).map((look) => ({ ...look, place: atDisplays })),
  ]
}

const placeOf = ({ place }: Post): string => (place ? fittingPlaces[place] : noPlace)
const postOf = ({ posts }: Network, id: string): Post => withId(posts, id)

/** A fuse with its rating, a plug with its pins, and other numbered parts. */
function fittingLook(bench: Bench, post: Post): Look[] {
  const { id, kind, name, state, fitting } = post
  if (fitting === null || fitting.number === '' || (state !== 'new' && kind !== 'plug')) return []
  const { number, ratedA, family } = fitting
  const rating = ratedA === null ? '' : `, ${ratedA} A`
  const type = family ? ` ${familyWords(family)}` : ''
  const pins = kind === 'plug' ? pinTests(bench, post) : []
  return [
    {
      place: placeOf(post),
      words: `${number} ${inSentence(name)}${rating}${type}${pins.length > 0 ? ', pins bright' : ''}`,
      tests: [
        ...(kind === 'fuse' && state === 'new' && ratedA !== null
          ? [
              printedTest(bench, {
                id: `rating-${id}`,
                title: `Rating of ${number}`,
                unit: 'A',
                how: `Read what is printed on the fuse ${number}, ${inSentence(name)}, before it goes in.`,
                read: (_seen, rig) => rig.printedA[id] ?? ratedA,
                run: null,
              }),
            ]
          : []),
        ...pins,
      ],
    },
  ]
}

/** The pins of a plug: one for the way there, one for the way back. */
const pinTests = ({ rig, states }: Bench, plug: Post): ProofTest[] =>
  rig.network.runs
    .filter((run) => plugOf(rig.network, run)?.id === plug.id)
    .map((run) =>
      answerTest({
        id: pinsTestId(run.id),
        title: `Pin of ${run.number} in ${nameInSentence(plug.name)}`,
        group: 'looks',
        state: withId(states, 'rest'),
        how: 'Pull the plug. Yes if pin and socket are bright, no if they are dull, green or burnt.',
        read: (_seen, { corroded }) => (corroded.includes(run.id) ? 0 : 1),
        run: run.id,
      }),
    )

/** The plug through whose pin a run goes: it ends there, or it is the return of a run that does. */
export function plugOf({ posts, runs }: Network, run: Run): Post | null {
  const plug = (id: string): Post | undefined => posts.find((post) => post.id === id && post.kind === 'plug')
  const there = runs.find(({ id }) => id === run.returnOf)
  return plug(run.to) ?? (there && (plug(there.from) ?? plug(there.to))) ?? null
}

export const lugTestId = (run: string): string => `lug-${run}`
export const pinsTestId = (run: string): string => `pins-${run}`

/** Both ends of a run, as names in a sentence. */
const endsOf = ({ rig: { network } }: Bench, { from, to }: Run): readonly [string, string] => [
  nameInSentence(postName(network, from)),
  nameInSentence(postName(network, to)),
]

/** The print on a fitted cable. */
function sizeTests(bench: Bench, run: Run, areaMm2: number): ProofTest[] {
  const { id, number, state } = run
  if (state !== 'new') return []
  const [from, end] = endsOf(bench, run)
  return [
    printedTest(bench, {
      id: `size-${id}`,
      title: `Size printed on ${number}`,
      unit: 'mm²',
      how: `Read what is printed on ${number}, from ${from} to ${end}.`,
      read: (_seen, rig) => rig.printedMm2[id] ?? areaMm2,
      run: id,
    }),
  ]
}

function lugTest(bench: Bench, run: Run): ProofTest {
  const { id, number } = run
  return answerTest({
    id: lugTestId(id),
    title: `Lugs of ${number} tight`,
    group: 'looks',
    state: restOf(bench),
    how: joinText(
      `Pull both lugs of ${number} and set their torque, `,
      `${torqueWords(run, bench.rig.network)}. Yes if both are tight, no if one moves.`,
    ),
    minutes: 1,
    read: (_seen, { loose }) => (loose.includes(id) ? 0 : 1),
    run: id,
  })
}

/** Whether a return ends behind the shunt. */
function landingTests(bench: Bench, run: Run): ProofTest[] {
  const { id, number, role, returnOf, to } = run
  if (role !== 'return' || returnOf === null || postOf(bench.rig.network, to).kind !== 'bar') return []
  const [, end] = endsOf(bench, run)
  return [
    answerTest({
      id: `lands-${id}`,
      title: `${number} lands on the load side of the shunt`,
      group: 'looks',
      state: restOf(bench),
      how: `Follow ${number} to its end. Yes if it ends at ${end}, no if it ends at another post.`,
      minutes: 1,
      read: (_seen, { pastShunt }) => (pastShunt.includes(id) ? 0 : 1),
      run: id,
    }),
  ]
}

/** A cable with its size, its lugs and its posts. */
function cableLook(bench: Bench, run: Run): Look[] {
  const { network } = bench.rig
  const { number, state, areaMm2, count } = run
  if (areaMm2 === null) return []
  const [from, end] = endsOf(bench, run)
  const size = state === 'new' ? ` ${count > 1 ? `${count} × ` : ''}${areaMm2} mm²` : ''
  return [
    {
      place: placeOf(postOf(network, run.from)),
      words: `${number}${size}, ${from} to ${end}, lugs tight, ${torqueWords(run, network)}`,
      tests: [...sizeTests(bench, run, areaMm2), lugTest(bench, run), ...landingTests(bench, run)],
    },
  ]
}

type Shown = Omit<Look, 'place'>

/** Something that is so, or is not. */
const shownTest = (bench: Bench, id: string, words: string, isSo: (rig: Rig) => boolean): Shown => ({
  words,
  tests: [
    answerTest({
      id,
      title: words,
      group: 'looks',
      state: restOf(bench),
      how: 'Yes if this is so, no if it is not.',
      minutes: 1,
      read: (_seen, now) => (isSo(now) ? 1 : 0),
    }),
  ],
})

/** The expected state of displays and of the main switch. */
function displayLooks(bench: Bench): Shown[] {
  const { network } = bench.rig
  const hasSwitch = network.posts.some(({ id, kind }) => id === 'main-switch' && kind === 'switch')
  const dark = 'Main switch off: everything goes dark'
  return [
    ...chargerLooks(bench),
    ...(hasSwitch
      ? [shownTest(bench, 'dark', dark, ({ stuckClosed }) => !stuckClosed.includes('main-switch'))]
      : []),
    ...monitorLooks(bench),
  ]
}

/** The settings of each charger. */
function chargerLooks(bench: Bench): Shown[] {
  const { network, charging } = bench.rig
  const sources = unitsOf(network, 'source').filter(({ from }) => from !== 'other')
  return [...sources, ...unitsOf(network, 'dcdc')].map(({ id, name, setV, mostA }) => {
    const floatV = charging[id]?.floatV
    const float = floatV == null ? '' : `, float ${floatV.toFixed(1)} V`
    const words = `${capital(name)} set to ${setV.toFixed(1)} V${float}, ${Number(mostA.toPrecision(2))} A`
    return shownTest(bench, `set-${id}`, words, ({ wronglySet }) => !wronglySet.includes(id))
  })
}

function monitorLooks(bench: Bench): Shown[] {
  const { monitor, standingA } = bench.rig
  if (!monitor) return []
  const { capacityAh, ratio } = monitor
  return [
    shownTest(
      bench,
      'set-monitor',
      `Monitor set to ${Number(capacityAh.toPrecision(3))} Ah and to the rating printed on the shunt`,
      (now) => now.monitor?.capacityAh === capacityAh && now.monitor.ratio === ratio,
    ),
    shownTest(
      bench,
      'monitor-rest',
      'Monitor shows 0.0 A with everything off',
      (now) => Math.abs(now.monitor?.zeroA ?? 0) < restingA && now.standingA - standingA < restingA,
    ),
  ]
}

/** Fuses taken out and tried. */
export const fuseTests = (bench: Bench): ProofTest[] =>
  bench.rig.network.posts
    .filter(({ kind }) => kind === 'fuse')
    .map(({ id, name }) =>
      answerTest({
        id: `conducts-${id}`,
        title: `${name} conducts`,
        group: 'looks',
        state: restOf(bench),
        how: 'Remove the fuse and test it with an ohmmeter. Yes if it conducts, no if it does not.',
        minutes: 4,
        read: (_seen, rig) => (rig.blown.includes(id) ? 0 : 1),
      }),
    )

/** The print on a part, read by eye. */
const printedTest = (
  bench: Bench,
  own: Pick<ProofTest, 'id' | 'title' | 'unit' | 'how' | 'read' | 'run'>,
): ProofTest => ({
  ...plainTest,
  group: 'looks',
  state: restOf(bench),
  quantity: 'size',
  instrument: 'eye',
  ...own,
})
