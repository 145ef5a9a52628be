import type Joi from 'joi'
import { defineEventHandler, getQuery, setResponseStatus, type EventHandlerRequest, type H3Event } from 'h3'
import { TooLarge } from '../judging/judge'
import { answerProblem, notAsDescribed, refusalProblem } from './as-described'
import { readJson } from './body'
import { Refusal } from './refusal'
import { failureOf, noteAnswer, validated } from './reply'
import type { Answers, JsonBody, RouteSpec } from './route-spec'
import { allowed } from './session'

const smallBytes = 4096
export const jsonBody = <B>(schema: Joi.ObjectSchema<B>, most = smallBytes): JsonBody<B> => ({ schema, most })
export const json = (schema: Joi.Schema): Answers => ({ status: 200, json: schema })
/** Something that was made. */
export const made = (schema: Joi.Schema): Answers => ({ status: 201, json: schema })
export const media = (type: string): Answers => ({ status: 200, media: type })

type Asked<Q, B> = { readonly query: Q; readonly body: B }

/**
 * A route: its return value is sent as JSON. A {@link Refusal} is answered as `{ error, … }` with its status, a
 * database that cannot be reached as 503; anything else is logged and answered without detail.
 */
export function route<T, Q = undefined, B = undefined>(
  spec: RouteSpec<Q, B>,
  handle: (event: H3Event<EventHandlerRequest>, asked: Asked<Q, B>) => Promise<T>,
) {
  const respond = async (event: H3Event): Promise<unknown> => {
    if (spec.needs !== 'anyone') event.context.person = await allowed(event, spec.needs)
    const body = spec.body && validated(spec.body.schema, await readJson(event, spec.body.most))
    const query = spec.query && validated(spec.query, getQuery(event))
    const answer = await handle(event, { query, body } as Asked<Q, B>)
    const problem = answerProblem(spec as RouteSpec, answer)
    if (problem) throw new Refusal(notAsDescribed, problem)
    if (spec.answer.status !== 200) setResponseStatus(event, spec.answer.status)
    return answer
  }
  const refuse = (event: H3Event, cause: unknown): unknown => {
    if (cause instanceof Refusal) {
      const problem = refusalProblem(spec as RouteSpec, cause.status)
      setResponseStatus(event, problem ? notAsDescribed : cause.status)
      return problem ? { error: problem } : { error: cause.message, ...cause.more }
    }
    if (cause instanceof TooLarge) {
      setResponseStatus(event, 422)
      return { error: `${cause.message} on the server; the bench takes the time it needs` }
    }
    const { status, words } = failureOf(event, cause)
    setResponseStatus(event, status)
    return { error: `${words} Nothing was saved.` }
  }
  const handler = defineEventHandler(async (event) => {
    const begun = performance.now()
    event.node.res.once('close', () => {
      noteAnswer(event, (performance.now() - begun) / 1000)
    })
    try {
      return await respond(event)
    } catch (cause) {
      return refuse(event, cause)
    }
  })
  return Object.assign(handler, { spec: spec as RouteSpec })
}
