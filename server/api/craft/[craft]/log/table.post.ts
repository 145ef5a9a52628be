import { readLogbookCsv } from '#core/formats/logbook-csv'
import { logbookRead } from '../../../../answers/craft'
import { readText } from '../../../../utils/body'
import { craftIdOf, noSuchCraft } from '../../../../utils/craft'
import { repositories } from '../../../../utils/database'
import { json, route } from '../../../../utils/route'
import { tableQuery, tableReport } from '../../../../utils/table'

const largestBytes = 4 * 1024 * 1024

/** Reads a table of entries: lists its errors row by row and, if asked, adds the good rows. */
export default route(
  { needs: 'installer', query: tableQuery, takes: ['text/csv'], answer: json(logbookRead), refuses: [404] },
  async (event, { query: { who, take } }) => {
    const id = craftIdOf(event)
    const { crafts, followUp } = await repositories(event, who)
    if (!(await crafts.read(id))) throw noSuchCraft()
    const { entries, problems, count } = readLogbookCsv(
      await readText(event, largestBytes, ['text/csv']),
      Date.now(),
    )
    const answer = tableReport(entries.length, count, problems)
    if (take === 'none' || entries.length === 0) return answer
    return { ...answer, taken: { added: await followUp.addEntries(id, entries) } }
  },
)
