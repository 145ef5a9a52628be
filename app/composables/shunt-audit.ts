import { useThrottleFn } from '@vueuse/core'
import { loadsFrom, StepDetector, type Reading, type CurrentStep } from '#core/loads/detect'
import type { ShuntInstrument } from '../utils/instruments'

interface LoadName {
  readonly name: string
  readonly hours: number | null
  readonly period: string
  readonly take: boolean
}
interface Kept {
  readonly readings: readonly (readonly [number, number, number])[]
  readonly names: Readonly<Record<string, LoadName>>
  readonly source: string
}

/**
 * A measured audit of one job: readings, the steps found in them, and the installer's names for them. Stored in the
 * browser at once, so that neither a lost connection nor a reload loses anything.
 */
export function useShuntAudit(jobId: string) {
  const key = `jovial-anchor.audit.${jobId}`
  const readings: Reading[] = []
  let detector = new StepDetector()
  let close: (() => void) | null = null
  const count = ref(0)
  const steps = shallowRef<readonly CurrentStep[]>([])
  const now = shallowRef<Reading | null>(null)
  const level = ref<number | null>(null)
  const state = ref<'idle' | 'connected' | 'lost' | 'ended'>('idle')
  const source = ref('')
  const names = ref<Record<string, LoadName>>({})
  const full = ref(false)
  const found = computed(() => loadsFrom(steps.value))
  /** Load current before anything was switched, A. */
  const standing = computed(() =>
    steps.value[0] ? steps.value[0].levelA - steps.value[0].deltaA : level.value,
  )

  function take(more: readonly Reading[]): void {
    const fresh = more.flatMap((reading) => {
      readings.push(reading)
      return [...detector.push(reading)]
    })
    if (fresh.length > 0) steps.value = [...steps.value, ...fresh]
    count.value = readings.length
    now.value = readings.at(-1) ?? null
    level.value = detector.levelA
  }

  function keep(): void {
    const kept: Kept = {
      readings: readings.map(({ t, amps, volts }) => [t, amps, volts] as const),
      names: names.value,
      source: source.value,
    }
    try {
      localStorage.setItem(key, JSON.stringify(kept))
      full.value = false
    } catch {
      full.value = true
    }
  }
  const keepSoon = useThrottleFn(keep, 1000, true)

  function recall(): void {
    try {
      const kept = JSON.parse(localStorage.getItem(key) ?? 'null') as Kept | null
      if (!kept) return
      names.value = { ...kept.names }
      source.value = kept.source
      take(kept.readings.map(([t, amps, volts]) => ({ t, amps, volts })))
    } catch {
      /* what cannot be read is no recording */
    }
  }

  function start(instrument: ShuntInstrument): void {
    stop()
    if (source.value !== instrument.name) clear()
    source.value = instrument.name
    close = instrument.open(readings.length, {
      readings: (more) => {
        take(more)
        void keepSoon()
      },
      state: (next) => {
        state.value = next
        if (next === 'ended') close = null
        keep()
      },
    })
  }
  function stop(): void {
    close?.()
    close = null
    if (state.value !== 'idle' && state.value !== 'ended') state.value = 'idle'
    if (readings.length > 0) keep()
  }
  function clear(): void {
    readings.length = 0
    detector = new StepDetector()
    steps.value = []
    names.value = {}
    count.value = 0
    now.value = level.value = null
    state.value = 'idle'
    localStorage.removeItem(key)
  }
  function name(id: string, change: Partial<LoadName>): void {
    names.value = {
      ...names.value,
      [id]: { ...{ name: '', hours: null, period: 'even', take: true }, ...names.value[id], ...change },
    }
    keep()
  }
  recall()
  onScopeDispose(stop)
  return {
    readings,
    count,
    steps,
    now,
    level,
    state,
    source,
    names,
    found,
    standing,
    full,
    start,
    stop,
    clear,
    name,
  }
}
