import { getRouterParam, sendStream, setResponseHeaders } from 'h3'
import { Readable } from 'node:stream'
import { writeShelfCsv } from '#core/formats/shelf-csv'
import { repositories } from '../../../utils/database'
import { shelfKindOf } from '../../../utils/shelf'
import { media, route } from '../../../utils/route'

/** The parts of a kind as a table to keep, change and bring back: all of them, sent as they are read. */
export default route({ needs: 'apprentice', answer: media('text/csv'), refuses: [404] }, async (event) => {
  const kind = shelfKindOf(getRouterParam(event, 'kind'))
  const { shelf } = await repositories(event)
  setResponseHeaders(event, {
    'content-type': 'text/csv; charset=utf-8',
    'content-disposition': `attachment; filename="shelf-${kind}.csv"`,
  })
  async function* text() {
    let isFirst = true
    for await (const parts of shelf.all(kind)) {
      const table = writeShelfCsv(kind, parts)
      yield isFirst ? table : table.slice(table.indexOf('\n') + 1)
      isFirst = false
    }
  }
  return sendStream(event, Readable.from(text()))
})
