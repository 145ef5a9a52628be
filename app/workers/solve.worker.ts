import { adjust, answersOf, type Adjustment, type Answer, type Answers } from '#core/solve/answer'
import { planOf, search, type Outcome, type Plan } from '#core/solve/solve'
import type { JobDocument } from '#core/job/document'
import type { RuleOverrides } from '#core/rules/rules'
import type { ShelfPart } from '#core/shelf/kinds'
import { showUnits, type DisplayUnits } from '#core/units/display'

export type SolveOrder =
  | { readonly kind: 'search'; readonly job: JobDocument; readonly rules: RuleOverrides; readonly shelf: readonly ShelfPart[]; readonly units: DisplayUnits; readonly of: number; readonly turn: number }
  | { readonly kind: 'judge'; readonly outcomes: readonly Outcome[] }
  | { readonly kind: 'adjust'; readonly id: number; readonly answer: Answer; readonly adjustments: readonly Adjustment[] }
export type SolveNews =
  | { readonly kind: 'planned'; readonly count: number }
  | { readonly kind: 'found'; readonly outcomes: readonly Outcome[] }
  | { readonly kind: 'searched' }
  | { readonly kind: 'answers'; readonly answers: Answers }
  | { readonly kind: 'adjusted'; readonly id: number; readonly answer: Answer }
  | { readonly kind: 'failed'; readonly error: string }

const say = (news: SolveNews): void => { postMessage(news) }
const foundTogether = 8

let plan: Plan | null = null

/** Searches its share of the combinations, then judges answers in full when it is asked. It is stopped by ending the worker. */
onmessage = ({ data }: MessageEvent<SolveOrder>): void => {
  try {
    if (data.kind === 'search') {
      showUnits(data.units)
      plan = planOf(data.job, data.rules, data.shelf)
      say({ kind: 'planned', count: plan.count })
      let found: Outcome[] = []
      for (const outcome of search(plan, data)) {
        found.push(outcome)
        if (found.length === foundTogether) {
          say({ kind: 'found', outcomes: found })
          found = []
        }
      }
      say({ kind: 'found', outcomes: found })
      say({ kind: 'searched' })
    } else if (data.kind === 'judge') {
      say({ kind: 'answers', answers: answersOf(plan!, data.outcomes) })
    } else {
      say({ kind: 'adjusted', id: data.id, answer: adjust(plan!, data.answer, data.adjustments) })
    }
  } catch (cause) {
    say({ kind: 'failed', error: (cause as Error).message })
  }
}
