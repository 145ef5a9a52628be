import { nothingProved, standingReadings, type Proving, type TakenReading } from '#core/job/proving'
import { provingOf } from '#core/job/proving-edits'
import type { ShownDiagnosis, ShownEssential, ShownTest } from '#core/diagnosis/shown'
import type { WorkStep } from '#core/commissioning/order/step'
import { plain, theEngine } from '../engine/client'
import { leaveProvingEngine, takeProvingEngine } from '../engine/proving'
import type { ShownProof, Taught } from '../engine/prover'

/**
 * Fitting and proving the job on the bench: its order of work and its tests, in an engine of its own, so that work
 * of several seconds delays nothing else. Readings are part of the job, and saved with it.
 */
export function useProve(isReady: () => boolean) {
  const bench = useJob()
  const judging = useJudging()
  const problem = ref('')
  const kept = takeProvingEngine((message) => {
    problem.value = message
  })
  const { engine } = kept
  onScopeDispose(leaveProvingEngine)
  const steps = shallowRef<readonly WorkStep[] | null>(null)
  const shown = shallowRef<ShownProof | null>(null)
  /** The essential tests, once they are chosen: the expected readings of each fault are calculated first. */
  const essential = shallowRef<ShownEssential | null>(null)
  const prepared = computed(() => essential.value !== null)
  const diagnosis = shallowRef<ShownDiagnosis | null>(null)
  const taught = shallowRef<Taught | null>(null)

  const proving = computed<Proving>(() => (bench.document ? provingOf(bench.document) : nothingProved))
  const standing = computed<ReadonlyMap<string, TakenReading>>(() => standingReadings(proving.value))
  const readings = computed(() => [...standing.value].map(([test, { value }]) => ({ test, value })))

  /** Inputs of the tests: the job without ticks and readings. */
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
      const isKept = kept.basis === now
      shown.value = isKept ? kept.shown : shown.value
      essential.value = isKept ? kept.essential : null
      if (!isKept) Object.assign(kept, { basis: now, shown: null, essential: null })
      try {
        const asked = [plain(bench.document!), plain(judging.settings)] as const
        // The order of work is available first; the expected readings follow.
        const order = await theEngine().orderOfWork(...asked)
        if (mine !== turn) return
        steps.value = order
        const proof = kept.shown ?? (await engine.prove(...asked))
        if (mine !== turn) return
        kept.shown = shown.value = proof
        const chosen = kept.essential ?? (await engine.prepareProof())
        if (mine === turn) kept.essential = essential.value = chosen
      } catch (cause) {
        problem.value = (cause as Error).message
      }
    },
    { immediate: true },
  )
  /** The result of the readings, unless a newer one came between. */
  const follow = async <T>(ask: Promise<T>, into: Ref<T | null>): Promise<void> => {
    const [mine, now] = [turn, readings.value]
    const answer = await ask
    if (mine === turn && now === readings.value) into.value = answer
  }
  watch([readings, shown], ([now, proof]) => {
    if (proof) void follow(engine.taught(plain(now)), taught)
  })
  watch([readings, prepared], ([now, isPrepared]) => {
    if (isPrepared) void follow(engine.diagnose(plain(now)), diagnosis)
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
    steps,
    shown,
    essential,
    prepared,
    diagnosis,
    taught,
    problem,
    proving,
    standing,
    readingOf,
    verdictOf,
  }
}
