import Joi from 'joi'

/** An object that an answer holds: all of its keys, and perhaps the optional ones. */
export const shape = (
  keys: Readonly<Record<string, Joi.Schema>>,
  optional: Readonly<Record<string, Joi.Schema>> = {},
): Joi.ObjectSchema =>
  Joi.object({
    ...Object.fromEntries(Object.entries(keys).map(([key, schema]) => [key, schema.required()])),
    ...optional,
  })

export const list = (of: Joi.Schema): Joi.Schema => Joi.array().items(of)
export const orNull = (schema: Joi.Schema): Joi.Schema => schema.allow(null)
/** Words, perhaps none. */
export const text = Joi.string().allow('')
export const id = Joi.string().guid()
/** A moment in UTC. */
export const moment = Joi.string().isoDate()
export const count = Joi.number().integer().min(0)
export const flag = Joi.boolean()
/** The findings in a table, and the result of importing its good rows. */
export const tableReadOf = (taken: Joi.Schema): Joi.ObjectSchema =>
  shape(
    {
      count,
      good: count,
      bad: count,
      problems: list(shape({ line: count, column: text, reason: text }).unknown()),
    },
    { taken },
  )
/** Anything that is described elsewhere. */
export const anything = (where: string): Joi.Schema => Joi.object().unknown().description(where)
