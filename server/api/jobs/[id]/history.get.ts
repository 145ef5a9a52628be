import Joi from 'joi'
import { repositories } from '../../../utils/database'
import { jobId, noSuchJob } from '../../../utils/reply'
import { historyPage } from '../../../answers/jobs'
import { json, route } from '../../../utils/route'

const query = Joi.object<{ before?: number }>({
  before: Joi.number().integer().min(1).max(2_000_000_000),
})

/** Changes of a job, newest first, as many as one answer should hold; older ones with `before`. */
export default route(
  { needs: 'apprentice', query, answer: json(historyPage), refuses: [404] },
  async (event, { query: { before } }) => {
    const id = jobId(event)
    const { jobs, jobHistory } = await repositories(event)
    if (!(await jobs.read(id))) throw noSuchJob()
    return jobHistory.of(id, before)
  },
)
