import Joi from 'joi'

/** The state of the data that a change was made on, as a request tells it. */
export const seenSchema = {
  version: Joi.number().integer().min(1).max(2_000_000_000).required(),
  epoch: Joi.string().uuid(),
}
