import Joi from 'joi'

/** Words on one line as a form sends them: without control characters, at most this many letters. */
export const plainText = (most: number) =>
  Joi.string()
    .trim()
    .max(most)
    .pattern(/^[^\p{Cc}\p{Cs}]*$/u, 'plain text')

/** Words on several lines: without control characters but for line ends. */
export const longText = (most: number): Joi.StringSchema =>
  Joi.string()
    .trim()
    .max(most)
    .pattern(/^[^\p{Cs}\u0000-\u0009\u000b-\u001f\u007f-\u009f]*$/u, 'plain text')
