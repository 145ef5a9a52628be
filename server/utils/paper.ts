import type { H3Event } from 'h3'
import { plainInputs } from '#core/papers/inputs'
import type { LabelSheetId } from '#core/papers/label-sheets'
import { answerKinds, type PlainKind } from '#core/papers/kinds'
import { sheetInputs } from '#core/papers/sheet'
import { judgeOfServer } from '../judging/pool'
import { photosOfPaper } from '../papers/photos'
import { keptByContent, keptPaper } from '../papers/kept'
import { repositories } from './database'
import { jobId, noSuchJob } from './reply'

/** A plain paper of a job as it is saved, as PDF: the same job, rules and letterhead give the same one all day. */
export async function draftOfJob(
  event: H3Event,
  kind: PlainKind,
  labelSheet?: LabelSheetId,
): Promise<{ readonly name: string; readonly data: Uint8Array } | 'nothing-specified'> {
  const { jobs, shop, letterheads, photos } = await repositories(event)
  const job = await jobs.read(jobId(event))
  if (!job) throw noSuchJob()
  if (answerKinds.has(kind) && !job.document.specified) return 'nothing-specified'
  const settings = await shop.read()
  const { letterhead, version } = await letterheads.read()
  // By its date.
  const issuedAt = `${new Date().toISOString().slice(0, 10)}T00:00:00.000Z`
  const judge = judgeOfServer()
  const madeFrom = `${kind} ${job.id} ${job.version} ${settings.version} ${version} ${issuedAt} ${labelSheet ?? ''}`
  const data = await keptPaper(madeFrom, async () => {
    const head = { number: '', issuedAt, issuedBy: '' }
    const sheet = {
      ...sheetInputs(job.document, { ...settings, letterhead }, head),
      photos: await photosOfPaper(photos, job, kind),
    }
    const inputs = plainInputs(sheet, labelSheet ? { labelSheet } : {})
    const { result } = await judge.plain({ kind, inputs })
    return keptByContent(result.paper, judge.pdf)
  })
  return { name: `${kind}-${job.document.job.number}`, data }
}
