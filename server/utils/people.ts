import { getRouterParam, type H3Event } from 'h3'
import Joi from 'joi'
import { roles, type Role } from '../repositories/actor'
import { plainText } from './plain-text'
import { Refusal } from './refusal'

export const leastPassword = 10
export const passwordSchema = Joi.string().min(leastPassword).max(200).required()
export const personName = plainText(100).min(1).required()
export const roleSchema = Joi.string<Role>()
  .valid(...roles)
  .required()
/** The secret of a link. */
export const tokenSchema = Joi.string()
  .pattern(/^[\w-]{20,100}$/, 'a token')
  .required()

const uuid = /^[0-9a-f]{8}-([0-9a-f]{4}-){3}[0-9a-f]{12}$/i

/** An id of the address, or 404 with these words. */
export function idOf(event: H3Event, name: string, words: string): string {
  const id = getRouterParam(event, name) ?? ''
  if (!uuid.test(id)) throw new Refusal(404, words)
  return id
}
export const noSuchPerson = 'There is no such person'

/** Says why a change of a person was not made. */
export function mustBeDone(done: 'done' | 'gone' | 'last-owner'): void {
  if (done === 'gone') throw new Refusal(404, noSuchPerson)
  if (done === 'last-owner')
    throw new Refusal(409, 'The shop needs an owner. Make another person owner first.')
}
