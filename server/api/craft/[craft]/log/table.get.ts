import { setResponseHeaders } from 'h3'
import { writeLogbookCsv } from '#core/formats/logbook-csv'
import { standingEntries } from '#core/logbook/entry'
import { craftIdOf, noSuchCraft } from '../../../../utils/craft'
import { repositories } from '../../../../utils/database'
import { media, route } from '../../../../utils/route'

/** The logbook of a craft as a table, without the entries that were corrected. */
export default route({ needs: 'apprentice', answer: media('text/csv'), refuses: [404] }, async (event) => {
  const id = craftIdOf(event)
  const { crafts, logbooks } = await repositories(event)
  if (!(await crafts.read(id))) throw noSuchCraft()
  setResponseHeaders(event, {
    'content-type': 'text/csv; charset=utf-8',
    'content-disposition': 'attachment; filename="logbook.csv"',
  })
  return writeLogbookCsv(standingEntries(await logbooks.list(id)))
})
