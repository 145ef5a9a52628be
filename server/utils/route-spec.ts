import type Joi from 'joi'
import type { Role } from '../repositories/actor'

/** What a route takes as JSON, and the most bytes it reads of it. */
export interface JsonBody<B> {
  readonly schema: Joi.ObjectSchema<B>
  readonly most: number
}

/** What a route answers when it does what it was asked to. */
export type Answers =
  { readonly status: 200 | 201; readonly json: Joi.Schema } | { readonly status: 200; readonly media: string }

/** What a route asks for and what it answers: the description of the API is made from this. */
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
