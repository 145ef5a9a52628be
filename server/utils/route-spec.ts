import type Joi from 'joi'
import type { Role } from '../repositories/actor'

/** A route's JSON input, and its size limit. */
export interface JsonBody<B> {
  readonly schema: Joi.ObjectSchema<B>
  readonly most: number
}

/** A route's answer on success. */
export type Answers =
  { readonly status: 200 | 201; readonly json: Joi.Schema } | { readonly status: 200; readonly media: string }

/** A route's input and answer: the description of the API is made from it. */
export interface RouteSpec<Q = unknown, B = unknown> {
  /** The least role that may use it; `anyone` needs no sign-in. */
  readonly needs: Role | 'anyone'
  readonly query?: Joi.ObjectSchema<Q>
  readonly body?: JsonBody<B>
  /** Media types of a body that the route reads by itself. */
  readonly takes?: readonly string[]
  readonly answer: Answers
  /** Refusals of its own, besides those of any route that asks for the same things. */
  readonly refuses?: readonly number[]
}

/** Statuses with which a route may refuse. */
export function refusalsOf({ needs, query, body, takes, refuses = [] }: RouteSpec): ReadonlySet<number> {
  const ofPeople = needs === 'anyone' ? [] : needs === 'apprentice' ? [401] : [401, 403]
  const ofQuery = query || body || takes ? [422] : []
  const ofBody = body || takes ? [400, 413, 415] : []
  return new Set([...ofPeople, ...ofQuery, ...ofBody, ...refuses])
}
