import { setResponseStatus } from 'h3'
import Joi from 'joi'
import { emptyJob } from '../../../core/job/document'
import { createJob, nextNumber } from '../../db/jobs'
import { readJson } from '../../utils/body'
import { workshopDatabase } from '../../utils/database'
import { route, validated } from '../../utils/reply'
import { whoSchema } from '../../utils/who'

const body = Joi.object<{ who: string }>({ who: whoSchema })

/** A new, empty job. */
export default route(async (event) => {
  const { who } = validated(body, await readJson(event, 64 * 1024))
  const { sql, workshop } = await workshopDatabase()
  const job = await createJob(sql, workshop, emptyJob(await nextNumber(sql, workshop), 'New job'), who)
  setResponseStatus(event, 201)
  return job
})
