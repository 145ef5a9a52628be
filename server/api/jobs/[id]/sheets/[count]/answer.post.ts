import Joi from 'joi'
import type { QuotationAnswer } from '#core/quotation/state'
import { sheetRow } from '../../../../../answers/jobs'
import { repositories } from '../../../../../utils/database'
import { plainText } from '../../../../../utils/plain-text'
import { Refusal } from '../../../../../utils/refusal'
import { jsonBody, made, route } from '../../../../../utils/route'
import { noSuchSheet, sheetOfAddress } from '../../../../../utils/sheet'
import { whoSchema } from '../../../../../utils/who'

type Given = Pick<QuotationAnswer, 'answer' | 'name' | 'note' | 'options'> & { readonly who: string }
const body = Joi.object<Given>({
  who: whoSchema,
  answer: Joi.valid('accepted', 'declined').required(),
  name: plainText(100).min(1).required().description('Who gave the answer.'),
  note: plainText(1000).allow('').default(''),
  options: Joi.array()
    .items(Joi.string().max(300))
    .max(200)
    .default([])
    .description('Ids of the options they take.'),
})

/** Notes what the customer answered to a quotation. It is noted once. */
export default route(
  { needs: 'installer', body: jsonBody(body, 128 * 1024), answer: made(sheetRow), refuses: [404, 409] },
  async (event, { body: { who, ...given } }) => {
    const { row, sheet, job } = await sheetOfAddress(event)
    if (sheet.format !== 'jovial-anchor/quotation') throw noSuchSheet()
    const optional = sheet.result.lines.filter(({ isOptional }) => isOptional).map(({ id }) => id)
    if (given.options.some((id) => !optional.includes(id)))
      throw new Refusal(422, 'This quotation has no such option')
    const { sheets } = await repositories(event, who)
    const answered = await sheets.answer(job, row.count, given)
    if (answered === 'answered') throw new Refusal(409, 'This quotation is answered already')
    if (answered === 'replaced') throw new Refusal(409, 'A newer quotation replaces this one')
    return answered
  },
)
