import { getRouterParam, type H3Event } from 'h3'
import { repositories } from './database'
import { jobId, Refusal } from './reply'

/** The sheet of the address, or 404. */
export async function sheetOfAddress(event: H3Event) {
  const id = jobId(event)
  const text = getRouterParam(event, 'count') ?? ''
  const { sheets } = await repositories()
  const found = /^[1-9]\d{0,5}$/.test(text) ? await sheets.read(id, Number(text)) : null
  if (!found) throw new Refusal(404, 'There is no such sheet')
  return found
}
