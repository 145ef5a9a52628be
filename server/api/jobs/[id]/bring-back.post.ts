import Joi from 'joi'
import { readJson } from '../../../utils/body'
import { repositories } from '../../../utils/database'
import { jobId, noSuchJob, route, validated } from '../../../utils/reply'
import { whoSchema } from '../../../utils/who'

const body = Joi.object<{ who: string }>({ who: whoSchema })

/** Brings back a job that was deleted. */
export default route('installer', async (event) => {
  const id = jobId(event)
  const { who } = validated(body, await readJson(event, 64 * 1024))
  const { jobs } = await repositories(event, who)
  if (!(await jobs.bringBack(id))) throw noSuchJob()
  return { broughtBack: id }
})
