import { inSentence, inside } from '#core/units/format'
import { answerTest, postName, stateIn, type Bench } from './make'
import type { ProofTest } from './test'

/** What can be seen by looking: sizes that are printed on cables and fuses, and fuses taken out. */
export function lookTests(bench: Bench): ProofTest[] {
  const { network } = bench.rig
  const sizes = network.runs
    .filter(({ state, areaMm2 }) => state === 'new' && areaMm2 !== null)
    .map((run) =>
      printedTest(bench, {
        id: `size-${run.id}`,
        title: `Size printed on ${run.number}`,
        unit: 'mm²',
        how: `Read what is printed on ${run.number}, from ${inside(postName(network, run.from))} to ${inside(postName(network, run.to))}.`,
        read: (_seen, rig) => rig.printedMm2[run.id] ?? run.areaMm2!,
        run: run.id,
      }),
    )
  const fuses = network.posts.filter(({ kind }) => kind === 'fuse')
  const ratings = fuses
    .filter(({ state, fitting }) => state === 'new' && fitting!.ratedA !== null)
    .map(({ id, name, fitting }) =>
      printedTest(bench, {
        id: `rating-${id}`,
        title: `Rating of ${fitting!.number}`,
        unit: 'A',
        how: `Read what is printed on the fuse ${fitting!.number}, ${inSentence(name)}, before it goes in.`,
        read: (_seen, rig) => rig.printedA[id] ?? fitting!.ratedA!,
        run: null,
      }),
    )
  const conducting = fuses.map(({ id, name }) =>
    answerTest({
      id: `conducts-${id}`,
      title: `${name} conducts`,
      group: 'looks',
      state: stateIn(bench, 'rest')!,
      how: 'Take the fuse out and try it with the ohmmeter. 1 where it conducts, 0 where it does not.',
      minutes: 4,
      onlyAsked: true,
      read: (_seen, rig) => (rig.blown.includes(id) ? 0 : 1),
    }),
  )
  return [...sizes, ...ratings, ...conducting]
}

/** What is printed on a part: read with the eye. */
const printedTest = (
  bench: Bench,
  own: Pick<ProofTest, 'id' | 'title' | 'unit' | 'how' | 'read' | 'run'>,
): ProofTest => ({
  group: 'looks',
  state: stateIn(bench, 'rest')!,
  quantity: 'size',
  instrument: 'eye',
  minutes: 1,
  probes: [],
  ...own,
})
