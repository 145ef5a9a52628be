import type { Reading } from '#core/loads/detect'

/** What happens on an instrument. */
export interface InstrumentEvents {
  readonly readings: (readings: readonly Reading[]) => void
  readonly state: (state: 'connected' | 'lost' | 'ended') => void
}

/** Anything that gives readings of a shunt: a stand-in, a recording, or a real instrument. */
export interface ShuntInstrument {
  readonly name: string
  /**
   * Starts behind so many readings that are there already; gives what stops it. A lost connection is taken up
   * again by itself.
   */
  readonly open: (after: number, events: InstrumentEvents) => () => void
}

const retryMs = 1000

/** The stand-in vehicle of the server. @param speed times as fast as life */
export const standInInstrument = (speed: number): ShuntInstrument => ({
  name: 'Stand-in vehicle',
  open(after, events) {
    let received = after
    let source: EventSource | null = null
    let timer: ReturnType<typeof setTimeout> | undefined
    const connect = (): void => {
      source = new EventSource(
        `/api/instruments/shunt?${new URLSearchParams({ from: String(received), speed: String(speed) })}`,
      )
      source.onopen = () => events.state('connected')
      source.onmessage = ({ data }) => {
        const readings = (JSON.parse(String(data)) as [number, number, number][]).map(([t, amps, volts]) => ({
          t,
          amps,
          volts,
        }))
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
  },
})

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
