import { asFitted } from '#core/job/as-fitted'
import { provingOf } from '#core/job/proving-edits'
import { standingReadings, type TakenReading } from '#core/job/proving'
import type { Change } from '#core/job/change'
import type { JobDocument } from '#core/job/document'
import { learntFrom, withLearnt, type Learnt } from '#core/diagnosis/learnt'
import { orderOf } from '#core/commissioning/order/order'
import type { Phase } from '#core/commissioning/order/step'
import { Diagnosis } from '#core/diagnosis/diagnosis'
import type { Risk } from '#core/commissioning/harm'
import { expectedWords, readingWords } from '#core/commissioning/readings'
import { fittedWords } from '#core/commissioning/fitted'
import type { KeptAs, Measured, ProofTest } from '#core/commissioning/tests/test'
import type { Network } from '#core/wiring/network'
import type { ShopSettings } from '#core/system/system'
import { worst, verdictWords, type Verdict } from '#core/system/verdict'
import { inSentence, writerIn, type Write, joinText } from '#core/units/format'
import { judgeFitted } from '#core/verdict/job'
import type { SheetInputs } from './sheet'

/** A signature: a name, and the lines that were drawn with a finger, in points from the top left. */
export interface Signature {
  readonly name: string
  /** Why it is signed although something is missing; left out if nothing is. */
  readonly reason?: string
  readonly strokes: readonly (readonly (readonly [x: number, y: number])[])[]
}

/** Everything a record is made from, as it stood when it was signed. */
export interface RecordInputs extends SheetInputs {
  readonly signature: Signature
}

/** A reading next to its expected value, in the unit of its test. */
export interface RecordedNumbers {
  readonly quantity: Measured
  readonly value: number
  readonly expected: number
  /** Half width of the expected range. */
  readonly tolerance: number
  readonly keptAs?: KeptAs
}

interface RecordedTest {
  readonly title: string
  /** Left out by records that were signed before it was kept. */
  readonly numbers?: RecordedNumbers
  readonly state: string
  readonly expected: string
  readonly reading: string
  readonly within: boolean
  readonly by: string
  readonly when: string
}

/** A signed record of fitting and proving: its inputs and its result. It never changes. */
export interface FittingRecord {
  readonly format: 'jovial-anchor/record'
  readonly version: 1
  readonly inputs: RecordInputs
  readonly result: {
    readonly verdict: Verdict
    readonly headline: string
    readonly wiring: Verdict
    readonly steps: readonly {
      readonly phase: Phase
      readonly words: string
      readonly state: 'done' | 'put-off' | 'open'
      readonly note: string
      readonly by: string
      readonly when: string
    }[]
    readonly tests: readonly RecordedTest[]
    /** Essential tests that were not made. */
    readonly open: readonly string[]
    /** The worth of the readings; absent in older records. */
    readonly worth?: { readonly done: number; readonly of: number; readonly risk: Risk }
    /** Missing items of a full proof, a sentence each; absent in older records. */
    readonly gaps?: readonly string[]
    readonly mended: readonly { readonly words: string; readonly by: string; readonly when: string }[]
    readonly fitted: readonly string[]
    /** Numbers are left out by records that were signed before they were kept. */
    readonly learnt: readonly (Pick<Learnt, 'of' | 'what'> &
      Partial<Pick<Learnt, 'before' | 'after' | 'within'>> & {
        readonly words: string
        readonly name?: string
      })[]
  }
}

/** The tests that have a reading, in their order. */
const takenOf = (tests: readonly ProofTest[], standing: ReturnType<typeof standingReadings>) =>
  tests.flatMap((test) => {
    const reading = standing.get(test.id)
    return reading ? [{ test, reading }] : []
  })

/** Works a record out from its inputs alone: the same inputs give the same record. */
export function recordOf(inputs: RecordInputs): FittingRecord {
  const { job, rules, shop } = inputs
  const settings = { rules, units: shop.units }
  const q = writerIn(shop.units)
  const fitted = asFitted(job)
  const diagnosis = new Diagnosis(fitted, settings)
  const { proof } = diagnosis
  const proving = provingOf(job)
  const standing = standingReadings(proving)
  const taken = takenOf(proof.tests, standing)
  const readings = taken.map(({ test, reading }) => ({ test, value: reading.value }))
  const learnt = learntFrom(proof, readings)
  const learntJob = withLearnt(fitted, learnt)
  const { judgement, wiring } = judgeFitted(learntJob, settings)
  const verdict = worst([judgement.verdict, wiring.verdict])
  const steps = stepsOf(job, settings)
  const tests = taken.map((one) => recordedTest(one, diagnosis, q))
  const risk = diagnosis.given(readings).risk()
  const routine = diagnosis.essential.tests
  const open = routine.filter(({ id }) => !standing.has(id)).map(({ title }) => title)
  const result: FittingRecord['result'] = {
    verdict: judgement.verdict,
    headline: judgement.headline,
    wiring: wiring.verdict,
    steps,
    tests,
    open,
    worth: { done: routine.length - open.length, of: routine.length, risk },
    gaps: gapsOf({ steps, tests, untested: [open.length, routine.length], verdict }),
    mended: proving.mended.map(({ words, by, when }) => ({ words, by, when })),
    ...changesIn(proof.rig.network, { fitted: proving.fitted, learnt }, q),
  }
  return { format: 'jovial-anchor/record', version: 1, inputs, result }
}

/** Differences from the proposal, and values learnt from the readings, in words. */
function changesIn(
  network: Network,
  { fitted, learnt }: { readonly fitted: readonly Change[]; readonly learnt: readonly Learnt[] },
  q: Write,
): Pick<FittingRecord['result'], 'fitted' | 'learnt'> {
  return {
    fitted: fitted.map((change) => fittedWords(change, network, q)),
    learnt: learnt.map((one) => ({
      ...one,
      name: nameOfLearnt(one, network),
      words: learntWords(one),
    })),
  }
}

/** The order of work with its ticked, skipped and open steps. */
function stepsOf(job: JobDocument, settings: ShopSettings): FittingRecord['result']['steps'] {
  const ticks = provingOf(job).steps
  return orderOf(job, settings).map(({ id, phase, words }) => {
    const { state = 'open', note = '', by = '', when = '' } = ticks[id] ?? {}
    return { phase, words, state, note, by, when }
  })
}

/** A test with its reading, next to the expected one. */
function recordedTest(
  { test, reading }: { readonly test: ProofTest; readonly reading: TakenReading },
  diagnosis: Diagnosis,
  q: Write,
): RecordedTest {
  const { value, tolerance } = diagnosis.expect(test)
  return {
    title: test.title,
    numbers: {
      quantity: test.quantity,
      value: reading.value,
      expected: value,
      tolerance,
      ...(test.keptAs ? { keptAs: test.keptAs } : {}),
    },
    state: test.state.name,
    expected: expectedWords(value, tolerance, test.quantity, test.unit, q),
    reading: readingWords(reading.value, test.quantity, test.unit, q),
    within: Math.abs(reading.value - value) <= tolerance,
    by: reading.by,
    when: reading.when,
  }
}

const learntWords = ({ after, within, before, what }: Learnt): string =>
  joinText(
    `${after.toPrecision(3)} ± ${within.toPrecision(2)} ${what === 'heat' ? 'K' : 'mΩ'}, `,
    `assumed ${before.toPrecision(3)}`,
  )

/** The part that was learnt about: `W1, main bar – house battery`, `Alternator`. */
function nameOfLearnt({ of, what }: Learnt, { runs, posts, units }: Network): string {
  if (what === 'heat') return units.find(({ id }) => id === of)?.name ?? of
  const run = runs.find(({ id }) => id === of)
  if (!run) return of
  const [from, to] = [run.from, run.to].map((end) => posts.find(({ id }) => id === end)?.name ?? end)
  return `${run.number}, ${from} – ${to}`
}

interface Proved {
  readonly steps: readonly { readonly state: 'done' | 'put-off' | 'open' }[]
  readonly tests: readonly Pick<RecordedTest, 'title' | 'within'>[]
  readonly untested: readonly [count: number, of: number]
  readonly verdict: Verdict
}

/** Items that must be complete before a record is signed without a reason, a sentence each. */
function gapsOf({ steps, tests, untested: [untested, of], verdict }: Proved): string[] {
  const undone = steps.filter(({ state }) => state !== 'done').length
  const outside = tests.filter(({ within }) => !within).map(({ title }) => inSentence(title))
  return [
    ...(undone > 0 ? [`${undone} of ${steps.length} steps are not done.`] : []),
    ...(untested > 0 ? [`${untested} of ${of} essential tests have no reading.`] : []),
    ...(outside.length > 0
      ? [
          joinText(
            `${outside.length === 1 ? '1 reading is' : `${outside.length} readings are`} `,
            `outside the expected range: ${outside.join('; ')}.`,
          ),
        ]
      : []),
    ...(verdict === 'suits' ? [] : [`The verdict as fitted is “${verdictWords[verdict]}”.`]),
  ]
}
