import { readJob } from '../../../../db/jobs'
import { listSheets } from '../../../../db/sheets'
import { workshopDatabase } from '../../../../utils/database'
import { jobId, noSuchJob, route } from '../../../../utils/reply'

/** The sheets issued for a job, newest first. */
export default route(async (event) => {
  const id = jobId(event)
  const { sql, workshop } = await workshopDatabase()
  if (!await readJob(sql, workshop, id)) throw noSuchJob()
  return listSheets(sql, workshop, id)
})
