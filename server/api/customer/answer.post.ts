import Joi from 'joi'
import { stateOfQuotation } from '#core/quotation/state'
import { answeredByCustomer } from '../../answers/customer'
import { customerOf } from '../../utils/customer'
import { repositoriesFor } from '../../utils/database'
import { tokenSchema } from '../../utils/people'
import { answerKeys, noteQuotationAnswer, type GivenAnswer } from '../../utils/quotation-answer'
import { Refusal } from '../../utils/refusal'
import { jsonBody, made, route } from '../../utils/route'
import { noSuchSheet } from '../../utils/sheet'

const body = Joi.object<GivenAnswer & { readonly token: string; readonly count: number }>({
  token: tokenSchema,
  count: Joi.number().integer().min(1).max(999_999).required(),
  ...answerKeys,
})

/** Takes a customer's answer to a quotation, from the page of their link. */
export default route(
  {
    needs: 'anyone',
    body: jsonBody(body, 128 * 1024),
    answer: made(answeredByCustomer),
    refuses: [404, 409, 429],
  },
  async (event, { body: { token, count, ...given } }) => {
    const { job, actor } = await customerOf(event, token, false)
    const { sheets } = repositoriesFor(actor)
    const found = await sheets.read(job, count)
    if (found?.sheet.format !== 'jovial-anchor/quotation') throw noSuchSheet()
    const { until } = found.sheet.result
    const state = stateOfQuotation({ until, isNewest: true, answer: found.row.answer }, new Date())
    if (state === 'expired')
      throw new Refusal(409, 'This quotation has expired. Ask the workshop for a new one.')
    await noteQuotationAnswer(sheets, job, found, given)
    return { answered: given.answer }
  },
)
