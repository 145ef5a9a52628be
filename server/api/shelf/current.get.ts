import Joi from 'joi'
import { repositories } from '../../utils/database'
import { partVersions } from '../../answers/shelf'
import { json, route } from '../../utils/route'

const query = Joi.object<{ codes: string }>({
  codes: Joi.string()
    .max(4000)
    .pattern(/^[\w.,-]*$/)
    .required(),
})

/** The current versions of parts by code, to see whether a job uses an older one. */
export default route(
  { needs: 'apprentice', query, answer: json(partVersions) },
  async (event, { query: { codes } }) => {
    const { shelf } = await repositories(event)
    return shelf.currentOf(codes.split(',').filter(Boolean))
  },
)
