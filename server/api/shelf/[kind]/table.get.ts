import { getRouterParam, setResponseHeaders } from 'h3'
import { writeShelfCsv } from '#core/formats/shelf-csv'
import { mostTableRows } from '#core/formats/table'
import { repositories } from '../../../utils/database'
import { route } from '../../../utils/reply'
import { shelfKindOf } from '../../../utils/shelf'

/** The parts of a kind as a table to keep, change and bring back. */
export default route(async (event) => {
  const kind = shelfKindOf(getRouterParam(event, 'kind'))
  const { shelf } = await repositories()
  const parts = await shelf.list(kind, '', mostTableRows)
  setResponseHeaders(event, {
    'content-type': 'text/csv; charset=utf-8',
    'content-disposition': `attachment; filename="shelf-${kind}.csv"`,
  })
  return writeShelfCsv(kind, parts)
})
