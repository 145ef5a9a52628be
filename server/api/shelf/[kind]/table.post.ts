import { getQuery, getRouterParam } from 'h3'
import Joi from 'joi'
import { largestShelfFileBytes, readShelfCsv } from '#core/formats/shelf-csv'
import { readText } from '../../../utils/body'
import { repositories } from '../../../utils/database'
import { route, validated } from '../../../utils/reply'
import { shelfKindOf } from '../../../utils/shelf'
import { whoSchema } from '../../../utils/who'

const query = Joi.object<{ who: string; take: 'none' | 'good' }>({
  who: whoSchema,
  take: Joi.valid('none', 'good').default('none'),
})
const mostShown = 1000

/** Reads a table of parts: tells what is wrong row by row and, if asked, takes the good rows. */
export default route('installer', async (event) => {
  const kind = shelfKindOf(getRouterParam(event, 'kind'))
  const text = await readText(event, largestShelfFileBytes, ['text/csv'])
  const { who, take } = validated(query, getQuery(event))
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
})
