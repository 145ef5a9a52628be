import { repositories } from '../../../utils/database'
import { jobId, noSuchJob } from '../../../utils/reply'
import { storedJob } from '../../../answers/jobs'
import { json, route } from '../../../utils/route'

/** A job with its document and version. */
export default route({ needs: 'apprentice', answer: json(storedJob), refuses: [404] }, async (event) => {
  const id = jobId(event)
  const { jobs } = await repositories(event)
  const job = await jobs.read(id)
  if (!job) throw noSuchJob()
  return job
})
