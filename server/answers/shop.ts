import Joi from 'joi'
import { verdicts } from '#core/system/verdict'
import { anything, count, flag, id, list, orNull, shape, text } from './shape'

const verdict = Joi.valid(...verdicts)

const settings = shape({
  name: text,
  rules: anything('Thresholds that differ from the usual ones, by rule.'),
  units: shape({ system: Joi.valid('metric', 'imperial'), currency: text }),
  version: count,
  epoch: id,
})
export const shopSettings = settings
export const savedSettings = shape({ shop: settings, waiting: count })
export const waitingJobs = shape({ waiting: count })
export const rulesPreview = shape({
  open: count,
  judged: count,
  unchecked: count,
  changed: list(shape({ id, number: text, name: text, before: verdict, after: verdict })),
  next: orNull(id),
})
export const letterheadAnswer = shape({
  letterhead: anything('What quotations carry: address, terms, currency, tax rates, margins.'),
  version: count,
})
export const modes = shape({ shop: flag, next: flag })
export const health = shape({
  ready: flag,
  database: Joi.valid('reachable', 'unreachable'),
  migrations: shape({ applied: orNull(count), wanted: count }),
})
