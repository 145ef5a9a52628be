import Joi from 'joi'
import type { IssuedContent } from '#core/papers/issued'
import { offersOf } from '#core/papers/offers'
import type { QuotationAnswer } from '#core/quotation/state'
import type { SheetRow, Sheets } from '../repositories/sheets'
import { plainText } from './plain-text'
import { Refusal } from './refusal'
import { noSuchSheet } from './sheet'

/** An answer to a quotation, as a request gives it. */
export type GivenAnswer = Pick<QuotationAnswer, 'answer' | 'name' | 'note' | 'options' | 'alternative'>

export const answerKeys = {
  answer: Joi.valid('accepted', 'declined').required(),
  name: plainText(100).min(1).required().description('Who gave the answer.'),
  note: plainText(1000).allow('').default(''),
  options: Joi.array()
    .items(Joi.string().max(300))
    .max(200)
    .default([])
    .description('Ids of the options they take.'),
  alternative: Joi.string()
    .allow('')
    .max(300)
    .default('')
    .description('The id of the alternative they take; empty for the chosen answer.'),
}

/** Notes an answer to a quotation. @throws a refusal if it is none, answered, replaced, or offers no such thing */
export async function noteQuotationAnswer(
  sheets: Sheets,
  job: string,
  { row, sheet }: { readonly row: SheetRow; readonly sheet: IssuedContent },
  given: GivenAnswer,
): Promise<SheetRow> {
  if (sheet.format !== 'jovial-anchor/quotation') throw noSuchSheet()
  const offer = offersOf(sheet).find(({ id }) => id === given.alternative)
  if (!offer) throw new Refusal(422, 'This quotation has no such alternative')
  const optional = offer.lines.filter(({ isOptional }) => isOptional).map(({ id }) => id)
  if (given.options.some((id) => !optional.includes(id)))
    throw new Refusal(422, 'This quotation has no such option')
  const answered = await sheets.answer(job, row.count, given)
  if (answered === 'answered') throw new Refusal(409, 'This quotation is answered already')
  if (answered === 'replaced') throw new Refusal(409, 'A newer quotation replaces this one')
  return answered
}
