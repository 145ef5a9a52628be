import { setResponseHeaders } from 'h3'
import { writeJobFile } from '#core/formats/job-file'
import { repositories } from '../../../utils/database'
import { jobId, noSuchJob } from '../../../utils/reply'
import { media, route } from '../../../utils/route'

/** The job as a file to keep or send on. */
export default route(
  { needs: 'apprentice', answer: media('application/json'), refuses: [404] },
  async (event) => {
    const id = jobId(event)
    const { jobs } = await repositories(event)
    const job = await jobs.read(id)
    if (!job) throw noSuchJob()
    const name = `job-${job.document.job.number}`.replace(/[^\w-]/g, '_')
    setResponseHeaders(event, {
      'content-type': 'application/json; charset=utf-8',
      'content-disposition': `attachment; filename="${name}.json"`,
    })
    return writeJobFile(job.document)
  },
)
