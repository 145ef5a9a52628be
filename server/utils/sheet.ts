import { getRouterParam, type H3Event } from 'h3'
import { readSheet } from '../db/sheets'
import { workshopDatabase } from './database'
import { jobId, Refusal } from './reply'

/** The sheet of the address, or 404. */
export async function sheetOfAddress(event: H3Event) {
  const id = jobId(event)
  const text = getRouterParam(event, 'count') ?? ''
  const { sql, workshop } = await workshopDatabase()
  const found = /^[1-9]\d{0,5}$/.test(text) ? await readSheet(sql, workshop, id, Number(text)) : null
  if (!found) throw new Refusal(404, 'There is no such sheet')
  return found
}
