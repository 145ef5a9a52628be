import { useLocalStorage } from '@vueuse/core'
import type { Streamed } from '#core/diagnosis/stream'
import type { InstrumentQuantity } from '#core/formats/instrument-lines'
import { followPort, type SerialPort } from '../device/serial'
import { followTest } from '../utils/instruments'

/** How long a logger is held at a test, s. */
const heldS = 3

/** Settings of a stand-in on this device: its hidden faults, and the speed of its time. */
export const useStandIn = (job: string) =>
  useLocalStorage(`jovial-anchor.stand-in.${job}`, { seed: 1, hidden: false })

/**
 * Readings of an instrument that is held at a test. They are stored on this device at once, so that neither a lost
 * connection nor a reload loses them.
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
  /** Reads a logger on a serial port for a few seconds from its first matching line. */
  function connect(port: SerialPort, baudRate: number, quantity: InstrumentQuantity): void {
    clear()
    const begun = performance.now()
    close = followPort(port, baudRate, {
      line: (line) => {
        if (line.quantity !== quantity || state.value !== 'connected') return
        const t = (performance.now() - begun) / 1000
        readings.value = [...readings.value, { t, value: line.value }]
        if (t - (readings.value[0]?.t ?? t) < heldS) return
        close?.()
        close = null
        state.value = 'ended'
      },
      state: (next) => {
        state.value = next
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
  return { readings, state, last, start, connect, stop, clear, standIn }
}
