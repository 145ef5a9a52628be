import { elementAt } from '#core/collections/held'
import { csvFormatRows } from 'd3-dsv'
import { channelIds, channels, type ChannelId } from '#core/simulation/record'
import type { RunResult } from '#core/simulation/runs'

/** How the column of a channel is headed. */
const head = (id: ChannelId): string => (channels[id].unit === '' ? id : `${id} (${channels[id].unit})`)
/** Every column there can be. */
export const seriesHeader = (ids: readonly ChannelId[] = channelIds): string[] => [
  'system',
  'time (s)',
  ...ids.map(head),
]

/**
 * The series of some runs as CSV, one system below the other: header row, units in headers, seconds since the
 * start, to a tenth. Channels that none of them has are left out; a cell is empty where a system has no such
 * channel. Yes and no are 1 and 0.
 * @param titles the name of each system, in the order of the runs
 */
export function seriesCsv(results: readonly RunResult[], titles: readonly string[]): string {
  const ids = channelIds.filter((id) => results.some(({ series }) => series.values[id]))
  const cell = (value: number | undefined): string =>
    value !== undefined && Number.isFinite(value) ? String(value) : ''
  const rows = results.flatMap(({ series: { t, values } }, k) =>
    t.map((time, i) => [
      elementAt(titles, k),
      String(Math.round(time * 10) / 10),
      ...ids.map((id) => cell(values[id]?.[i])),
    ]),
  )
  return `${csvFormatRows([seriesHeader(ids), ...rows])}\n`
}
