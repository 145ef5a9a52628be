import Joi from 'joi'
import { customerKinds } from '#core/papers/kinds'
import { quotationStates } from '#core/quotation/state'
import { anything, count, flag, id, list, moment, orNull, shape, text } from './shape'

export const customerLink = shape({
  link: orNull(
    shape({ createdAt: moment, createdBy: text, endsAt: moment, openings: count, openedAt: orNull(moment) }),
  ),
})
export const newLink = shape({ token: Joi.string(), days: count })
export const endedLink = shape({ ended: id })

const paper = {
  count,
  number: text,
  kind: Joi.valid(...customerKinds),
  issuedAt: moment,
  paper: anything('The paper as blocks.'),
}
const quotation = shape({
  state: Joi.valid(...Object.keys(quotationStates)),
  offers: list(
    shape({
      id: text,
      name: text,
      total: text,
      options: list(shape({ id: text, name: text, amount: text })),
    }),
  ),
  answer: orNull(shape({ answer: Joi.valid('accepted', 'declined'), name: text, at: moment })),
  canAnswer: flag,
})
/** The customer's view: papers as issued, without their inputs. */
export const customerPage = shape({ shop: text, job: text, papers: list(shape(paper, { quotation })) })
export const sentMessage = shape({ sent: flag })
export const customerMessages = list(shape({ id, name: text, words: text, at: moment }))
export const answeredByCustomer = shape({ answered: Joi.valid('accepted', 'declined') })
