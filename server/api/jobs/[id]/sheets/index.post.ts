import Joi from 'joi'
import type { Signature } from '#core/papers/record'
import type { Seen } from '../../../../repositories/actor'
import type { Issuing } from '../../../../repositories/sheets'
import { repositories } from '../../../../utils/database'
import { Refusal } from '../../../../utils/refusal'
import { jobId, noSuchJob } from '../../../../utils/reply'
import { plainText } from '../../../../utils/plain-text'
import { seenSchema } from '../../../../utils/seen'
import { whoSchema } from '../../../../utils/who'
import { sheetRow } from '../../../../answers/jobs'
import { json, jsonBody, route } from '../../../../utils/route'

const coordinate = Joi.number().min(-5000).max(5000).required()
const signature = Joi.object<Signature>({
  name: plainText(100).min(1).required(),
  reason: plainText(500).min(1),
  strokes: Joi.array()
    .max(100)
    .items(Joi.array().max(2000).items(Joi.array().ordered(coordinate, coordinate)))
    .required(),
})
const body = Joi.object<Seen & { who: string; kind?: 'quotation'; signature?: Signature }>({
  ...seenSchema,
  who: whoSchema,
  kind: Joi.valid('quotation').description('Left out for a specification, or for a record with a signature.'),
  signature,
}).oxor('kind', 'signature')

/**
 * Issues what is specified as a sheet that never changes: as a specification, as a quotation, or, with a signature, as
 * the record of fitting and proving. The version says which state of the job was looked at.
 */
export default route(
  {
    needs: 'installer',
    body: jsonBody(body, 512 * 1024),
    answer: json(sheetRow),
    refuses: [404, 409],
  },
  async (event, { body: { version, epoch, who, kind = 'specification' as const, signature: signed } }) => {
    const id = jobId(event)
    const { sheets } = await repositories(event, who)
    const what: Issuing = signed ? { kind: 'record', signature: signed } : { kind }
    const issued = await sheets.issue(id, { version, epoch }, new Date(), what)
    switch (issued.kind) {
      case 'no-job':
        throw noSuchJob()
      case 'nothing-specified':
        throw new Refusal(422, 'This job has no specification yet. Choose an answer first')
      case 'stale':
        throw new Refusal(409, `${issued.theirs.updatedBy} changed this job in the meantime`, {
          theirs: issued.theirs,
        })
      case 'gaps':
        throw new Refusal(422, 'Something is missing. Give a reason for signing anyway.', {
          gaps: issued.gaps,
        })
      case 'unpriced':
        throw new Refusal(422, `Enter the missing prices first: ${issued.names.join(', ')}`)
      case 'issued':
        return issued.row
    }
  },
)
