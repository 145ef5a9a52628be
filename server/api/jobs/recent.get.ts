import { getQuery } from 'h3'
import Joi from 'joi'
import { repositories } from '../../utils/database'
import { route, validated } from '../../utils/reply'

const mostPinned = 100

const query = Joi.object<{ also: string[] }>({
  /** Ids of further jobs, with commas between them. */
  also: Joi.array().items(Joi.string().guid()).max(mostPinned).single().default([]),
})

/** Jobs that a device should keep for work without signal, with their versions. */
export default route('apprentice', async (event) => {
  const asked = getQuery(event).also
  const ids = typeof asked === 'string' ? asked.split(',').filter(Boolean) : asked
  const { also } = validated(query, ids === undefined ? {} : { also: ids })
  return (await repositories(event)).jobs.recent(also)
})
