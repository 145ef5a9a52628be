import { getQuery } from 'h3'
import Joi from 'joi'
import { repositories } from '../../utils/database'
import { route, validated } from '../../utils/reply'
import { pageEnd } from '../../utils/shelf'

const query = Joi.object<{ after?: string }>({ after: pageEnd })

/** The parts that stand on the shelf, a page at a time, for the search for answers. */
export default route('apprentice', async (event) => {
  const { after } = validated(query, getQuery(event))
  const { shelf } = await repositories(event)
  return shelf.whole(after)
})
