import Joi from 'joi'
import { sheetRow } from '../../../../../answers/jobs'
import { repositories } from '../../../../../utils/database'
import { answerKeys, noteQuotationAnswer, type GivenAnswer } from '../../../../../utils/quotation-answer'
import { jsonBody, made, route } from '../../../../../utils/route'
import { sheetOfAddress } from '../../../../../utils/sheet'
import { whoSchema } from '../../../../../utils/who'

const body = Joi.object<GivenAnswer & { readonly who: string }>({ who: whoSchema, ...answerKeys })

/** Notes the customer's answer to a quotation. It is noted once. */
export default route(
  { needs: 'installer', body: jsonBody(body, 128 * 1024), answer: made(sheetRow), refuses: [404, 409] },
  async (event, { body: { who, ...given } }) => {
    const { job, ...found } = await sheetOfAddress(event)
    const { sheets } = await repositories(event, who)
    return noteQuotationAnswer(sheets, job, found, given)
  },
)
