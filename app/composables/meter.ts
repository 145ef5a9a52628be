import { useIntervalFn } from '@vueuse/core'
import { readReadingsCsv } from '#core/formats/loads-csv'
import type { Reading } from '#core/loads/detect'
import { serialInstrument, type SerialPort } from '../device/serial'

const tickMs = 100
const largestMb = 10

/** Readings of a test: from the stand-in meter, at a speed, from a logger, or from a recording. */
export function useMeter() {
  const readings = shallowRef<readonly Reading[]>([])
  const problem = ref('')
  const isConnected = ref(false)
  let close: (() => void) | null = null
  let waiting: readonly Reading[] = []
  let [clock, speed] = [0, 1]
  const { isActive, pause, resume } = useIntervalFn(
    () => {
      clock += (tickMs / 1000) * speed
      const next = waiting.findIndex(({ t }) => t > clock)
      const count = next < 0 ? waiting.length : next
      if (count > 0) readings.value = [...readings.value, ...waiting.slice(0, count)]
      waiting = waiting.slice(count)
      if (waiting.length === 0) pause()
    },
    tickMs,
    { immediate: false },
  )
  /** Begins again with these readings, so many seconds of theirs in one of ours. */
  function play(all: readonly Reading[], times: number): void {
    problem.value = ''
    readings.value = []
    waiting = all
    clock = all[0]?.t ?? 0
    speed = times
    resume()
  }
  async function load(event: Event): Promise<void> {
    const file = await takeText(event, largestMb)
    if (!file) return
    if (file.problem !== undefined) return void (problem.value = file.problem)
    const read = readReadingsCsv(file.text)
    problem.value = tableProblem(file.name, read, read.readings.length) ?? ''
    if (problem.value) return
    pause()
    readings.value = read.readings
  }
  /** Follows a logger on a serial port. */
  function connect(port: SerialPort, baudRate: number): void {
    stop()
    problem.value = ''
    readings.value = []
    isConnected.value = true
    close = serialInstrument(port, baudRate).open(0, {
      readings: (more) => {
        readings.value = [...readings.value, ...more]
      },
      state: (state) => {
        isConnected.value = state === 'connected'
        if (state === 'lost')
          problem.value =
            'The connection to the logger was lost. Connect it again, or go on with what was read.'
      },
    })
  }
  function stop(): void {
    pause()
    close?.()
    close = null
    isConnected.value = false
  }
  onScopeDispose(stop)
  function clear(): void {
    stop()
    readings.value = []
  }
  const isRunning = computed(() => isActive.value || isConnected.value)
  return { readings, problem, isRunning, play, load, connect, stop, clear }
}
export type Meter = ReturnType<typeof useMeter>
