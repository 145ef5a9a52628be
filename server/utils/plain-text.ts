import Joi from 'joi'

/** Words on one line as a form sends them: without control characters, at most this many letters. */
export const plainText = (most: number) =>
  Joi.string()
    .trim()
    .max(most)
    .pattern(/^[^\p{Cc}\p{Cs}]*$/u, 'plain text')
