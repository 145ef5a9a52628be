import Joi from 'joi'
import { currencyCodes, locales } from '#core/quotation/money'
import { mostLogoLetters, mostTaxRates, type Letterhead } from '#core/quotation/terms'
import { pictureOf } from '../pictures/picture'
import { longText, plainText } from './plain-text'
import { Refusal } from './refusal'

const lines = (most: number) => longText(most).allow('').required()
const percent = (most: number) => Joi.number().min(0).max(most).required()

const pngHead = 'data:image/png;base64,'
/** Pixels of a logo in each direction, at most. */
const mostLogoPx = 2000

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
  logo: Joi.string()
    .allow('')
    .max(mostLogoLetters)
    .pattern(/^data:image\/png;base64,[A-Za-z0-9+/]+={0,2}$/, 'a PNG picture as a data address')
    .required(),
})

/** A logo without metadata. @throws a refusal if it is no picture, or too large */
export async function cleanLogo(logo: string): Promise<string> {
  if (logo === '') return ''
  const picture = await pictureOf(Buffer.from(logo.slice(pngHead.length), 'base64'), 'image/png')
  if (!picture || picture === 'too large') throw new Refusal(422, 'The logo is not a complete PNG picture')
  if (Math.max(picture.width, picture.height) > mostLogoPx)
    throw new Refusal(422, `The logo is larger than ${mostLogoPx} × ${mostLogoPx} pixels`)
  return `${pngHead}${Buffer.from(picture.data).toString('base64')}`
}
