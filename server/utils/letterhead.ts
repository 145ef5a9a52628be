import Joi from 'joi'
import { currencyCodes, locales } from '#core/quotation/money'
import { mostTaxRates, type Letterhead } from '#core/quotation/terms'
import { plainText } from './plain-text'

/** Words on several lines: without control characters but for line ends. */
const lines = (most: number) =>
  Joi.string()
    .trim()
    .allow('')
    .max(most)
    .pattern(/^[^\p{Cs}\u0000-\u0009\u000b-\u001f\u007f-\u009f]*$/u, 'plain text')
    .required()
const percent = (most: number) => Joi.number().min(0).max(most).required()

export const letterheadSchema = Joi.object<Letterhead>({
  address: lines(500),
  phone: plainText(60).allow('').required(),
  email: plainText(120).allow('').required(),
  taxNumber: plainText(60).allow('').required(),
  bank: lines(500),
  terms: lines(5000),
  // Which there are depends on the version of Node.js: the description of the API must not.
  currency: Joi.string()
    .custom((code: string, helpers) =>
      currencyCodes.includes(code) ? code : helpers.message({ custom: 'is not a currency code' }),
    )
    .required()
    .description('ISO 4217 code.'),
  locale: Joi.valid(...Object.keys(locales)).required(),
  taxRates: Joi.array()
    .items(Joi.object({ name: plainText(40).min(1).required(), percent: percent(100) }))
    .min(1)
    .max(mostTaxRates)
    .unique('name')
    .required(),
  validDays: Joi.number().integer().min(1).max(365).required(),
  depositPercent: percent(100),
  marginPercent: Joi.object({
    batteries: percent(1000),
    charging: percent(1000),
    wiring: percent(1000),
  }).required(),
  consumables: Joi.valid('itemised', 'together').required(),
})
