import { getRouterParam } from 'h3'
import Joi from 'joi'
import { largestShelfFileBytes, readShelfCsv } from '#core/formats/shelf-csv'
import { readText } from '../../../utils/body'
import { repositories } from '../../../utils/database'
import { shelfKindOf } from '../../../utils/shelf'
import { whoSchema } from '../../../utils/who'
import { tableRead } from '../../../answers/shelf'
import { json, route } from '../../../utils/route'

const query = Joi.object<{ who: string; take: 'none' | 'good' }>({
  who: whoSchema,
  take: Joi.valid('none', 'good').default('none'),
})
const mostShown = 1000

/** Reads a table of parts: tells what is wrong row by row and, if asked, takes the good rows. */
export default route(
  { needs: 'installer', query, takes: ['text/csv'], answer: json(tableRead), refuses: [404] },
  async (event, { query: { who, take } }) => {
    const kind = shelfKindOf(getRouterParam(event, 'kind'))
    const text = await readText(event, largestShelfFileBytes, ['text/csv'])
    const { parts, problems, count } = readShelfCsv(text, kind)
    const answer = {
      count,
      good: parts.length,
      problems: problems.slice(0, mostShown),
      bad: new Set(problems.map((p) => p.line)).size,
    }
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
