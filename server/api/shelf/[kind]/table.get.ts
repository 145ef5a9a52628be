import { getRouterParam, setResponseHeaders } from 'h3'
import { writeShelfCsv } from '#core/formats/shelf-csv'
import { mostTableRows } from '#core/formats/table'
import { listShelf } from '../../../db/shelf'
import { workshopDatabase } from '../../../utils/database'
import { route } from '../../../utils/reply'
import { shelfKindOf } from '../../../utils/shelf'

/** The parts of a kind as a table to keep, change and bring back. */
export default route(async (event) => {
  const kind = shelfKindOf(getRouterParam(event, 'kind'))
  const { sql, workshop } = await workshopDatabase()
  const parts = await listShelf(sql, workshop, kind, '', mostTableRows)
  setResponseHeaders(event, { 'content-type': 'text/csv; charset=utf-8', 'content-disposition': `attachment; filename="shelf-${kind}.csv"` })
  return writeShelfCsv(kind, parts)
})
