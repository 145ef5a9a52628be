import Joi from 'joi'

export const versionSchema = Joi.number().integer().max(2_000_000_000)

/** The state of the data that a change was made on, as a request tells it. */
export const seenSchema = {
  version: versionSchema.min(1).required(),
  epoch: Joi.string().uuid(),
}
