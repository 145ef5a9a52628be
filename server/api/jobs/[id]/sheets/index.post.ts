import Joi from 'joi'
import type { PlainChoices } from '#core/papers/inputs'
import { isPlainKind, plainKinds, type PlainKind } from '#core/papers/kinds'
import { labelSheetIds } from '#core/papers/label-sheets'
import type { Signature } from '#core/papers/record'
import type { Seen } from '../../../../repositories/actor'
import type { Issuing } from '../../../../repositories/sheets'
import { repositories } from '../../../../utils/database'
import { Refusal } from '../../../../utils/refusal'
import { jobId, noSuchJob, nothingSpecified } from '../../../../utils/reply'
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
interface Asked extends Seen, PlainChoices {
  readonly who: string
  readonly kind?: 'quotation' | PlainKind
  readonly signature?: Signature
}
const body = Joi.object<Asked>({
  ...seenSchema,
  who: whoSchema,
  kind: Joi.valid('quotation', ...plainKinds).description(
    'Left out for a specification, or for a record with a signature.',
  ),
  signature,
  labelSheet: Joi.valid(...labelSheetIds).description('Only for labels.'),
  customerPage: Joi.string()
    .uri({ scheme: ['http', 'https'] })
    .max(300)
    .description('Only for settings cards: the address behind their code.'),
}).oxor('kind', 'signature')

function issuingOf({
  kind,
  signature: signed,
  labelSheet,
  customerPage,
}: Omit<Asked, 'who' | keyof Seen>): Issuing {
  if (signed) return { kind: 'record', signature: signed }
  if (kind === undefined || !isPlainKind(kind)) return { kind: kind ?? 'specification' }
  return {
    kind,
    choices: { ...(labelSheet ? { labelSheet } : {}), ...(customerPage ? { customerPage } : {}) },
  }
}

/**
 * Issues a paper that never changes: a specification, a plain paper, a quotation, or, with a signature, the record of
 * fitting and proving. The version says which state of the job was looked at.
 */
export default route(
  {
    needs: 'installer',
    body: jsonBody(body, 512 * 1024),
    answer: json(sheetRow),
    refuses: [404, 409],
  },
  async (event, { body: { version, epoch, who, ...asked } }) => {
    const id = jobId(event)
    const { sheets } = await repositories(event, who)
    const issued = await sheets.issue(id, { version, epoch }, new Date(), issuingOf(asked))
    switch (issued.kind) {
      case 'no-job':
        throw noSuchJob()
      case 'nothing-specified':
        throw nothingSpecified()
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
