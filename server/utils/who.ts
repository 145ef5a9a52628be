import Joi from 'joi'

/** Who makes a change: the name people gave their device. */
export const whoSchema = Joi.string()
  .trim()
  .min(1)
  .max(100)
  .pattern(/^[^\p{Cc}\p{Cs}]*$/u, 'plain text')
  .required()
