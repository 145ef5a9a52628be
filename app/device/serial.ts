import {
  LineReader,
  readInstrumentLine,
  ShuntLines,
  type InstrumentLine,
} from '#core/formats/instrument-lines'
import type { InstrumentEvents, ShuntInstrument } from '../utils/instruments'

/** The part of the browser’s serial interface that is used here. */
export interface SerialPort {
  readonly readable: ReadableStream<Uint8Array> | null
  open(options: { readonly baudRate: number }): Promise<void>
  close(): Promise<void>
}
interface Serial {
  requestPort(): Promise<SerialPort>
}

/** Rates that loggers use, bits per second; the first is the usual one. */
export const baudRates = [115_200, 57_600, 38_400, 19_200, 9600] as const

const serialOf = (): Serial | undefined => (navigator as { readonly serial?: Serial }).serial
/** Whether this browser can read a serial port. */
export const hasSerial = (): boolean => serialOf() !== undefined

/** A port that the person chooses; null if they choose none. */
export async function choosePort(): Promise<SerialPort | null> {
  try {
    return (await serialOf()?.requestPort()) ?? null
  } catch {
    return null
  }
}

/** Follows the lines of a port until it is closed. Returns the function that stops it. */
export function followPort(
  port: SerialPort,
  baudRate: number,
  on: { readonly line: (line: InstrumentLine) => void; readonly state: InstrumentEvents['state'] },
): () => void {
  let reader: ReadableStreamDefaultReader<Uint8Array> | undefined
  let isOver = false
  async function run(): Promise<void> {
    const [lines, decoder] = [new LineReader(), new TextDecoder()]
    await port.open({ baudRate })
    if (!port.readable) throw new Error('The port cannot be read')
    on.state('connected')
    reader = port.readable.getReader()
    for (;;) {
      const { value, done } = await reader.read()
      if (done) break
      for (const text of lines.push(decoder.decode(value, { stream: true }))) {
        const line = readInstrumentLine(text)
        if (line) on.line(line)
      }
    }
  }
  void run()
    .then(() => 'ended' as const)
    .catch(() => 'lost' as const)
    .then(async (state) => {
      reader?.releaseLock()
      await port.close().catch(() => undefined)
      if (!isOver) on.state(state)
    })
  return () => {
    isOver = true
    void reader?.cancel().catch(() => undefined)
  }
}

/**
 * A shunt that a logger on a serial port reads: it sends lines of voltage and current.
 * @param fromS seconds at which its time begins: after the earlier readings
 */
export const serialInstrument = (port: SerialPort, baudRate: number, fromS = 0): ShuntInstrument => ({
  name: 'Logger',
  open(_after, events) {
    const shunt = new ShuntLines()
    const begun = performance.now()
    return followPort(port, baudRate, {
      state: events.state,
      line: (line) => {
        const reading = shunt.push(line, fromS + (performance.now() - begun) / 1000)
        if (reading) events.readings([reading])
      },
    })
  },
})
