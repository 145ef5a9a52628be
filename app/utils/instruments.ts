import type { Reading } from '#core/loads/detect'
import type { Streamed } from '#core/diagnosis/stream'

/** Events of an instrument. */
export interface InstrumentEvents<T = Reading> {
  readonly readings: (readings: readonly T[]) => void
  readonly state: (state: 'connected' | 'lost' | 'ended') => void
}

/** A source of shunt readings: a simulation, a recording, or a real instrument. */
export interface ShuntInstrument {
  readonly name: string
  /**
   * Starts after this many existing readings; returns the function that stops it. A lost connection reconnects
   * automatically.
   */
  readonly open: (after: number, events: InstrumentEvents) => () => void
}

const retryMs = 1000

/** Data on a stream of the server. */
interface Stream<T> {
  /** The address of the stream after this many readings. */
  readonly address: (received: number) => string
  /** A reading from its message. */
  readonly read: (sent: readonly number[]) => T
}

/**
 * Follows a stream of the server: a lost connection continues after the last data. Returns the function that stops
 * it.
 * @param after number of existing readings
 */
function follow<T>({ address, read }: Stream<T>, after: number, events: InstrumentEvents<T>): () => void {
  let received = after
  let source: EventSource | null = null
  let timer: ReturnType<typeof setTimeout> | undefined
  const connect = (): void => {
    source = new EventSource(address(received))
    source.onopen = () => events.state('connected')
    source.onmessage = ({ data }) => {
      const readings = (JSON.parse(String(data)) as number[][]).map(read)
      received += readings.length
      events.readings(readings)
    }
    source.addEventListener('end', () => {
      close()
      events.state('ended')
    })
    source.onerror = () => {
      source?.close()
      events.state('lost')
      timer = setTimeout(connect, retryMs)
    }
  }
  const close = (): void => {
    clearTimeout(timer)
    source?.close()
  }
  connect()
  return close
}

/** The simulated vehicle of the server. @param speed multiple of real time */
export const standInInstrument = (speed: number): ShuntInstrument => ({
  name: 'Simulated vehicle',
  open: (after, events) =>
    follow(
      {
        address: (from) =>
          `/api/instruments/shunt?${new URLSearchParams({ from: String(from), speed: String(speed) })}`,
        read: ([t, amps, volts]) => ({ t: t!, amps: amps!, volts: volts! }),
      },
      after,
      events,
    ),
})

/** Simulated meter, clamp, monitor and probe at a test of a job. */
export interface HeldAt {
  readonly job: string
  readonly test: string
  readonly seed: number
  /** Whether it hides a fault. */
  readonly hidden: boolean
  /** Times as fast as life. */
  readonly speed: number
}
export const followTest = (
  { job, ...held }: HeldAt,
  after: number,
  events: InstrumentEvents<Streamed>,
): (() => void) =>
  follow(
    {
      address: (from) => {
        const query = Object.entries({ ...held, from }).map(([name, value]) => [name, String(value)])
        return `/api/jobs/${job}/instrument?${new URLSearchParams(query)}`
      },
      read: ([t, value]) => ({ t: t!, value: value! }),
    },
    after,
    events,
  )

/** A recording, through the same path. */
export const recordedInstrument = (name: string, readings: readonly Reading[]): ShuntInstrument => ({
  name,
  open(after, events) {
    let next = after
    events.state('connected')
    const timer = setInterval(() => {
      events.readings(readings.slice(next, next + 400))
      next += 400
      if (next < readings.length) return
      clearInterval(timer)
      events.state('ended')
    }, 30)
    return () => clearInterval(timer)
  },
})
