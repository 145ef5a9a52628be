import { useLocalStorage } from '@vueuse/core'
import type { Streamed } from '#core/diagnosis/stream'
import { followTest } from '../utils/instruments'

/** How a stand-in is set up on this device: what it hides, and how fast its time goes. */
export const useStandIn = (job: string) =>
  useLocalStorage(`jovial-anchor.stand-in.${job}`, { seed: 1, hidden: false })

/**
 * Readings of an instrument that is held at a test. Kept on this device as they come, so that neither a lost
 * connection nor a reload loses what was seen.
 */
export function useLiveReading(job: string, test: () => string) {
  const standIn = useStandIn(job)
  const key = (): string => `jovial-anchor.live.${job}.${test()}`
  const readings = shallowRef<readonly Streamed[]>([])
  const state = ref<'idle' | 'connected' | 'lost' | 'ended'>('idle')
  const last = computed(() => readings.value.at(-1) ?? null)
  let close: (() => void) | null = null

  function recall(): void {
    stop()
    try {
      readings.value = JSON.parse(localStorage.getItem(key()) ?? '[]') as Streamed[]
    } catch {
      readings.value = []
    }
    state.value = 'idle'
  }
  const keep = (): void => {
    try {
      localStorage.setItem(key(), JSON.stringify(readings.value))
    } catch {
      /* a full store loses nothing that is on the page */
    }
  }
  function start(speed: number): void {
    stop()
    close = followTest({ job, test: test(), speed, ...standIn.value }, readings.value.length, {
      readings: (more) => {
        readings.value = [...readings.value, ...more]
        keep()
      },
      state: (next) => {
        state.value = next
        if (next === 'ended') close = null
      },
    })
  }
  function stop(): void {
    close?.()
    close = null
    if (state.value === 'connected' || state.value === 'lost') state.value = 'idle'
  }
  function clear(): void {
    stop()
    readings.value = []
    state.value = 'idle'
    localStorage.removeItem(key())
  }
  watch(test, recall, { immediate: true })
  onScopeDispose(stop)
  return { readings, state, last, start, stop, clear, standIn }
}
