import { quantity } from '#core/job/field'
import type { DriveTrace } from '#core/simulation/traces'
import { readTable, type TableColumns, type TableProblem } from './table'

export const voltageColumns: TableColumns = {
  time: quantity('Time', 's', 1, [0, 10_000_000], [0, 1], 'Seconds since the log began.'),
  voltage: quantity('Voltage', 'V', 0.1, [0, 80], [0, 1], 'At the starting battery.'),
}
const alikeV = 0.15
const mostRows = 200

/** Reads a log of the voltage on one drive into a trace: readings that stay alike are one row. */
export function readVoltageLog(text: string): {
  readonly trace: DriveTrace
  readonly problems: readonly TableProblem[]
} {
  const { rows, problems } = readTable(text, voltageColumns)
  const bad = [...problems]
  const trace: { minutes: number; volts: number }[] = []
  let before: { time: number; voltage: number } | null = null
  for (const { line, values } of rows) {
    const { time, voltage } = values as Record<string, number>
    if (time === undefined || voltage === undefined)
      bad.push({ line, column: time === undefined ? 'time' : 'voltage', reason: 'is empty' })
    else if (before && time <= before.time)
      bad.push({ line, column: 'time', reason: 'is not later than the row before' })
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
  const rounded = trace.map(({ minutes, volts }) => ({
    minutes: Math.round(minutes * 100) / 100,
    volts: Math.round(volts * 100) / 100,
  }))
  return { trace: rounded.slice(0, mostRows), problems: bad }
}
