import { getRouterParam } from 'h3'
import { largestShelfFileBytes, readShelfCsv } from '#core/formats/shelf-csv'
import { readText } from '../../../utils/body'
import { repositories } from '../../../utils/database'
import { shelfKindOf } from '../../../utils/shelf'
import { tableQuery, tableReport } from '../../../utils/table'
import { tableRead } from '../../../answers/shelf'
import { json, route } from '../../../utils/route'

/** Reads a table of parts: lists its errors row by row and, if asked, imports the good rows. */
export default route(
  { needs: 'installer', query: tableQuery, takes: ['text/csv'], answer: json(tableRead), refuses: [404] },
  async (event, { query: { who, take } }) => {
    const kind = shelfKindOf(getRouterParam(event, 'kind'))
    const text = await readText(event, largestShelfFileBytes, ['text/csv'])
    const { parts, problems, count } = readShelfCsv(text, kind)
    const answer = tableReport(parts.length, count, problems)
    if (take === 'none') return answer
    const { shelf } = await repositories(event, who)
    return {
      ...answer,
      taken: await shelf.put(
        kind,
        parts.map(({ code, name, maker, values }) => ({ code, name, maker, values })),
      ),
    }
  },
)
