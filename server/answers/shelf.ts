import Joi from 'joi'
import { shelfKindIds } from '#core/shelf/kinds'
import { anything, count, flag, list, moment, orNull, shape, tableReadOf, text } from './shape'

const partKeys = {
  kind: Joi.valid(...shelfKindIds),
  code: text,
  version: count,
  name: text,
  maker: text,
  values: anything('Values of the part by field.'),
}
const part = shape(partKeys)
/** A version of a part. */
export const partVersion = shape({ ...partKeys, retired: flag, createdAt: moment, createdBy: text })
export const partVersions = list(partVersion)
export const shelfPage = shape({
  parts: partVersions,
  next: orNull(text),
  counts: Joi.object().pattern(/.*/, count),
})
export const wholeShelfPage = shape({ parts: list(part), next: orNull(text) })
export const retiredPart = shape({ retired: text })

const stored = shape({ added: count, changed: count, same: count })
export const tableRead = tableReadOf(stored)
