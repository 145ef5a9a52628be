import { getQuery } from 'h3'
import Joi from 'joi'
import { repositories } from '../../../utils/database'
import { jobId, noSuchJob, route, validated } from '../../../utils/reply'

const query = Joi.object<{ before?: number }>({
  before: Joi.number().integer().min(1).max(2_000_000_000),
})

/** Changes of a job, newest first, as many as one answer should hold; older ones with `before`. */
export default route('apprentice', async (event) => {
  const id = jobId(event)
  const { before } = validated(query, getQuery(event))
  const { jobs } = await repositories(event)
  if (!(await jobs.read(id))) throw noSuchJob()
  return jobs.history(id, before)
})
