import type { JobDocument } from '#core/job/document'
import { partKinds, stationIds as surveyStations, type PartKindId } from '#core/job/fields'
import type { Write } from '#core/units/format'

/** A station of the walk-round: the job data, or one kind of part. */
export type StationId = 'job' | PartKindId

/** The stations in walking order. */
export const stationIds: readonly StationId[] = ['job', ...surveyStations]

export const isStation = (id: unknown): id is StationId =>
  typeof id === 'string' && (stationIds as readonly string[]).includes(id)

export const stationTitle = (station: StationId): string =>
  station === 'job' ? 'Job' : partKinds[station].title

/** The purpose of a station, in one sentence. */
export const stationAbout = (station: StationId): string =>
  station === 'job'
    ? 'Who the job is for and when it is due. No verdict depends on it.'
    : partKinds[station].about

export const stationAfter = (station: StationId): StationId | null =>
  stationIds[stationIds.indexOf(station) + 1] ?? null
export const stationBefore = (station: StationId): StationId | null =>
  stationIds[stationIds.indexOf(station) - 1] ?? null

export function stateOf(job: JobDocument, station: StationId, toMeasure: readonly string[]): StationState {
  if (station !== 'job') return stationState(job, station, toMeasure)
  const { number, name, customer, contact } = job.job
  return number && name && customer && contact ? 'done' : 'gaps'
}

/** The content of a station, in a few words. */
export function summaryOf(job: JobDocument, station: StationId, q: Write): string {
  if (station !== 'job') return stationSummary(job, station, q)
  const { number, customer, dueDate } = job.job
  return [number, customer, dueDate && `due ${dueDate}`].filter(Boolean).join(', ')
}
