import { refusalsOf, type RouteSpec } from './route-spec'

/** Tests have every answer compared with what its route says. */
const isChecked = process.env.CHECK_ANSWERS === 'yes'

/** How an answer differs from what its route says; null where it does not, or nobody checks. */
export function answerProblem({ answer }: RouteSpec, sent: unknown): string | null {
  if (!isChecked || !('json' in answer)) return null
  const asSent: unknown = JSON.parse(JSON.stringify(sent ?? null))
  const { error } = answer.json.validate(asSent, { convert: false, abortEarly: false })
  return error ? `The answer is not as the route says: ${error.message}` : null
}

/** Status of an answer that is not as its route says. */
export const notAsDescribed = 500

/** What is wrong with a refusal that its route does not announce; null where nothing is, or nobody checks. */
export const refusalProblem = (spec: RouteSpec, status: number): string | null =>
  isChecked && status !== notAsDescribed && !refusalsOf(spec).has(status)
    ? `The route does not say that it answers ${status}`
    : null
