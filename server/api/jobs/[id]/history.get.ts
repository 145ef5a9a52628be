import { readHistory, readJob } from '../../../db/jobs'
import { workshopDatabase } from '../../../utils/database'
import { jobId, noSuchJob, route } from '../../../utils/reply'

export default route(async (event) => {
  const id = jobId(event)
  const { sql, workshop } = await workshopDatabase()
  if (!await readJob(sql, workshop, id)) throw noSuchJob()
  return readHistory(sql, workshop, id)
})
