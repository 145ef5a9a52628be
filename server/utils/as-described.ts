import { refusalsOf, type RouteSpec } from './route-spec'

/** Tests compare every answer with the route's declaration. */
const isChecked = process.env.CHECK_ANSWERS === 'yes'

/** The difference of an answer from its route's declaration; null if there is none, or nobody checks. */
export function answerProblem({ answer }: RouteSpec, sent: unknown): string | null {
  if (!isChecked || !('json' in answer)) return null
  const sentJson: unknown = JSON.parse(JSON.stringify(sent ?? null))
  const { error } = answer.json.validate(sentJson, { convert: false, abortEarly: false })
  return error ? `The answer is not as the route says: ${error.message}` : null
}

/** Status of an answer that is not as its route says. */
export const notAsDescribed = 500

/** The error of an undeclared refusal; null if there is none, or nobody checks. */
export const refusalProblem = (spec: RouteSpec, status: number): string | null =>
  isChecked && status !== notAsDescribed && !refusalsOf(spec).has(status)
    ? `The route does not say that it answers ${status}`
    : null
