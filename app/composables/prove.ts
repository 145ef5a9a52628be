import { nothingProved, standingReadings, type Proving, type TakenReading } from '#core/job/proving'
import { provingOf } from '#core/job/proving-edits'
import type { Learnt } from '#core/proving/learnt'
import type { ShownDiagnosis, ShownTest } from '#core/proving/shown'
import { plain, startEngine } from '../engine/client'
import type { ShownProof } from '../engine/prover'

/**
 * Fitting and proving the job on the bench: its order of work and its tests, from an engine of its own, so that what
 * takes seconds holds up nothing else. Readings are part of the job, and saved with it.
 */
export function useProve(isReady: () => boolean) {
  const bench = useJob()
  const judging = useJudging()
  const problem = ref('')
  const { engine, end } = startEngine((message) => {
    problem.value = message
  })
  onScopeDispose(end)
  const shown = shallowRef<ShownProof | null>(null)
  const prepared = ref(false)
  const diagnosis = shallowRef<ShownDiagnosis | null>(null)
  const learnt = shallowRef<readonly Learnt[]>([])
  const busy = ref(false)

  const proving = computed<Proving>(() => (bench.document ? provingOf(bench.document) : nothingProved))
  const standing = computed<ReadonlyMap<string, TakenReading>>(() => standingReadings(proving.value))
  const readings = computed(() => [...standing.value].map(([test, { value }]) => ({ test, value })))

  /** What the tests hang on: all of the job but what was ticked and read. */
  const basis = computed(() => {
    if (!isReady() || !bench.document) return ''
    const { steps: _steps, readings: _readings, mended: _mended, ...kept } = proving.value
    return JSON.stringify({ job: { ...bench.document, proving: kept }, shop: judging.settings })
  })
  let turn = 0
  watch(
    basis,
    async (now) => {
      const mine = ++turn
      if (!now) return
      prepared.value = false
      try {
        const proof = await engine.prove(plain(bench.document!), plain(judging.settings))
        if (mine !== turn) return
        shown.value = proof
        if (!(await engine.prepareProof()) || mine !== turn) return
        prepared.value = true
      } catch (cause) {
        problem.value = (cause as Error).message
      }
    },
    { immediate: true },
  )
  watch([readings, prepared], async ([now, isPrepared]) => {
    if (!isPrepared) return
    const mine = turn
    busy.value = true
    const [found, taught] = await Promise.all([engine.diagnose(plain(now)), engine.learnt(plain(now))])
    if (mine !== turn || now !== readings.value) return
    diagnosis.value = found
    learnt.value = taught
    busy.value = false
  })

  const readingOf = ({ id }: ShownTest): TakenReading | null => standing.value.get(id) ?? null
  /** Within its band, outside it, or not read. */
  const verdictOf = (test: ShownTest): 'within' | 'outside' | 'open' => {
    const reading = readingOf(test)
    if (!reading) return 'open'
    return Math.abs(reading.value - test.expected) <= test.tolerance ? 'within' : 'outside'
  }
  return {
    engine,
    shown,
    prepared,
    diagnosis,
    learnt,
    busy,
    problem,
    proving,
    standing,
    readingOf,
    verdictOf,
  }
}
