import { repositories } from '../../../../utils/database'
import { jobId, noSuchJob } from '../../../../utils/reply'
import { sheetRow } from '../../../../answers/jobs'
import { list } from '../../../../answers/shape'
import { json, route } from '../../../../utils/route'

/** The sheets issued for a job, newest first. */
export default route({ needs: 'apprentice', answer: json(list(sheetRow)), refuses: [404] }, async (event) => {
  const id = jobId(event)
  const { jobs, sheets } = await repositories(event)
  if (!(await jobs.read(id))) throw noSuchJob()
  return sheets.list(id)
})
