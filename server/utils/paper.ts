import { judgeOfServer } from '../judging/pool'
import { keptByContent, keptPaper } from '../papers/kept'
import { repositories } from './database'
import { jobId, noSuchJob, sendPdf } from './reply'
import { media, route } from './route'

/** A paper of a job as it is saved, by its name: the same job and rules give the same one all day. */
export const paperOfJob = (name: 'summary' | 'wiring') =>
  route({ needs: 'apprentice', answer: media('application/pdf'), refuses: [404] }, async (event) => {
    const { jobs, shop } = await repositories(event)
    const job = await jobs.read(jobId(event))
    if (!job) throw noSuchJob()
    const settings = await shop.read()
    // By its date.
    const madeAt = `${new Date().toISOString().slice(0, 10)}T00:00:00.000Z`
    const judge = judgeOfServer()
    const data = await keptPaper(`${name} ${job.id} ${job.version} ${settings.version} ${madeAt}`, async () =>
      keptByContent(await judge[name]({ ...settings, document: job.document, madeAt }), judge.pdf),
    )
    return sendPdf(event, `${name}-${job.document.job.number}`, data)
  })
