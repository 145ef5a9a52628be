import Joi from 'joi'
import { repositories } from '../../utils/database'
import { pageEnd } from '../../utils/shelf'
import { wholeShelfPage } from '../../answers/shelf'
import { json, route } from '../../utils/route'

const query = Joi.object<{ after?: string }>({ after: pageEnd })

/** The parts that stand on the shelf, a page at a time, for the search for answers. */
export default route(
  { needs: 'apprentice', query, answer: json(wholeShelfPage) },
  async (event, { query: { after } }) => {
    const { shelf } = await repositories(event)
    return shelf.whole(after)
  },
)
