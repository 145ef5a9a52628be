import { quantity } from '../job/field'
import { readTable, type TableColumns, type TableProblem } from '../formats/table'

/** Minutes at volts, in the order driven, repeated while the engine runs. */
export type DriveTrace = readonly { readonly minutes: number; readonly volts: number }[]

/** Voltages of a computer-controlled alternator as they are often seen, at 12 V. */
export const driveTraces = {
  town: { title: 'Town: stop and go', trace: [{ minutes: 3, volts: 12.6 }, { minutes: 2, volts: 14.4 }, { minutes: 1, volts: 15 }, { minutes: 4, volts: 12.5 }, { minutes: 2, volts: 13.4 }] },
  motorway: { title: 'Motorway: long and steady', trace: [{ minutes: 12, volts: 14.4 }, { minutes: 25, volts: 12.8 }, { minutes: 8, volts: 13.6 }] },
  mountain: { title: 'Mountain: down and up', trace: [{ minutes: 10, volts: 12.4 }, { minutes: 6, volts: 15.1 }, { minutes: 8, volts: 12.6 }, { minutes: 5, volts: 14.8 }] },
} as const satisfies Record<string, { readonly title: string; readonly trace: DriveTrace }>

export const voltageColumns: TableColumns = {
  time: quantity('Time', 's', 1, [0, 10_000_000], [0, 1], 'Seconds since the log began.'),
  voltage: quantity('Voltage', 'V', 0.1, [0, 80], [0, 1], 'At the starting battery.'),
}
const alikeV = 0.15
const mostRows = 200

/** Reads a log of the voltage on one drive into a trace: readings that stay alike are one row. */
export function readVoltageLog(text: string): { readonly trace: DriveTrace; readonly problems: readonly TableProblem[] } {
  const { rows, problems } = readTable(text, voltageColumns)
  const bad = [...problems]
  const trace: { minutes: number; volts: number }[] = []
  let before: { time: number; voltage: number } | null = null
  for (const { line, values } of rows) {
    const { time, voltage } = values as Record<string, number>
    if (time === undefined || voltage === undefined) bad.push({ line, column: time === undefined ? 'time' : 'voltage', reason: 'is empty' })
    else if (before && time <= before.time) bad.push({ line, column: 'time', reason: 'is not later than the row before' })
    else {
      if (before) {
        const minutes = (time - before.time) / 60
        const last = trace.at(-1)
        if (last && Math.abs(last.volts - before.voltage) < alikeV) {
          last.volts = (last.volts * last.minutes + before.voltage * minutes) / (last.minutes + minutes)
          last.minutes += minutes
        } else trace.push({ minutes, volts: before.voltage })
      }
      before = { time, voltage }
    }
  }
  const rounded = trace.map(({ minutes, volts }) => ({ minutes: Math.round(minutes * 100) / 100, volts: Math.round(volts * 100) / 100 }))
  return { trace: rounded.slice(0, mostRows), problems: bad }
}
