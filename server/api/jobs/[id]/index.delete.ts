import Joi from 'joi'
import { keptDays } from '../../../repositories/jobs'
import { repositories } from '../../../utils/database'
import { jobId, noSuchJob, refuseFields } from '../../../utils/reply'
import { whoSchema } from '../../../utils/who'
import { deletedJob } from '../../../answers/jobs'
import { json, route } from '../../../utils/route'

const query = Joi.object<{ who: string; name: string }>({
  who: whoSchema,
  name: Joi.string().allow('').max(200).required(),
})

/** Deletes a job whose name, or number if it has none, was typed. It is kept for a while, to be brought back. */
export default route(
  { needs: 'installer', query, answer: json(deletedJob), refuses: [404] },
  async (event, { query: { who, name } }) => {
    const id = jobId(event)
    const { jobs } = await repositories(event, who)
    const job = await jobs.read(id)
    if (!job) throw noSuchJob()
    const wanted = job.document.job.name || job.document.job.number
    if (name.trim() !== wanted.trim())
      throw refuseFields([{ path: 'name', message: `is not what this job is called: ${wanted}` }])
    if (!(await jobs.remove(id))) throw noSuchJob()
    return { deleted: id, keptDays }
  },
)
