import { getQuery } from 'h3'
import Joi from 'joi'
import { repositories } from '../../utils/database'
import { route, validated } from '../../utils/reply'

const query = Joi.object<{ codes: string }>({
  codes: Joi.string()
    .max(4000)
    .pattern(/^[\w.,-]*$/)
    .required(),
})

/** The current versions of parts by code, to see whether a job uses an older one. */
export default route('apprentice', async (event) => {
  const { codes } = validated(query, getQuery(event))
  const { shelf } = await repositories(event)
  return shelf.currentOf(codes.split(',').filter(Boolean))
})
