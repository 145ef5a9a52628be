import type { H3Event } from 'h3'
import Joi from 'joi'
import { roles, type Role } from '../repositories/actor'
import { plainText } from './plain-text'
import { Refusal } from './refusal'
import { idOf } from './reply'

export const leastPassword = 10
export const passwordSchema = Joi.string().min(leastPassword).max(200).required()
/** 4 to 8 digits; not the same one over and over. */
export const pinSchema = Joi.string()
  .pattern(/^\d{4,8}$/, '4 to 8 digits')
  .pattern(/^(\d)\1*$/, { invert: true, name: 'the same digit repeated' })
  .required()
export const personName = plainText(100).min(1).required()
export const roleSchema = Joi.string<Role>()
  .valid(...roles)
  .required()
/** The secret of a link. */
export const tokenSchema = Joi.string()
  .pattern(/^[\w-]{20,100}$/, 'a token')
  .required()

export const noSuchPerson = (): Refusal => new Refusal(404, 'There is no such person')
export const noSuchSession = (): Refusal => new Refusal(404, 'There is no such session')

export const noSuchToken = (): Refusal => new Refusal(404, 'There is no such key')

/** The person of the address, or 404. */
export const personId = (event: H3Event): string => idOf(event, 'person', noSuchPerson)

/** Says why a change of a person was not made. */
export function mustBeDone(done: 'done' | 'gone' | 'last-owner'): void {
  if (done === 'gone') throw noSuchPerson()
  if (done === 'last-owner')
    throw new Refusal(409, 'The shop needs an owner. Make another person owner first.')
}
