import { getRouterParam, type H3Event } from 'h3'
import { repositories } from './database'
import { Refusal } from './refusal'
import { jobId } from './reply'

export const noSuchSheet = (): Refusal => new Refusal(404, 'There is no such sheet')

/** The sheet of the address, of which job, and where such are kept; or 404. */
export async function sheetOfAddress(event: H3Event) {
  const job = jobId(event)
  const text = getRouterParam(event, 'count') ?? ''
  const { sheets } = await repositories(event)
  const found = /^[1-9]\d{0,5}$/.test(text) ? await sheets.read(job, Number(text)) : null
  if (!found) throw noSuchSheet()
  return { ...found, job, sheets }
}
