import { getRouterParam, type H3Event } from 'h3'
import Joi from 'joi'
import { shelfCodePattern } from '#core/formats/shelf-csv'
import { shelfKinds, type ShelfKindId } from '#core/shelf/kinds'
import { Refusal } from './refusal'

/** The end of a page of the shelf: the key of its last part, as JSON. */
export const pageEnd = Joi.string()
  .max(400)
  .custom((text: string, helpers) => {
    try {
      const words: unknown = JSON.parse(text)
      const isEnd =
        Array.isArray(words) &&
        words.length === 2 &&
        words.every((word) => typeof word === 'string' && !word.includes('\u0000'))
      return isEnd ? text : helpers.error('any.invalid')
    } catch {
      return helpers.error('any.invalid')
    }
  })

/** A kind of the shelf by its name, or 404. */
export function shelfKindOf(name: unknown): ShelfKindId {
  if (typeof name !== 'string' || !Object.hasOwn(shelfKinds, name))
    throw new Refusal(404, 'There is no such kind of part')
  return name as ShelfKindId
}

/** Kind and code of the address, or 404. */
export function shelfPartOf(event: H3Event): { readonly kind: ShelfKindId; readonly code: string } {
  const code = getRouterParam(event, 'code', { decode: true }) ?? ''
  const kind = shelfKindOf(getRouterParam(event, 'kind'))
  if (!shelfCodePattern.test(code)) throw noSuchPart()
  return { kind, code }
}

export const noSuchPart = (): Refusal => new Refusal(404, 'There is no such part on the shelf')
