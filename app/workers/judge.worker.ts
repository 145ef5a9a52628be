import type { JobDocument } from '../../core/job/document'
import type { RuleOverrides } from '../../core/rules/rules'
import { inUnits, type DisplayUnits } from '../../core/units/display'
import { judgings, type Judging } from '../utils/judgings'

export interface JudgeOrder {
  readonly id: number
  readonly what: Judging
  readonly job: JobDocument
  readonly rules: RuleOverrides
  readonly units: DisplayUnits
}
export interface JudgeNews {
  readonly id: number
  readonly result?: unknown
  readonly error?: string
}

/** Judges off the page's own thread. Sending the result works out what is only worked out when it is looked at. */
onmessage = ({ data: { id, what, job, rules, units } }: MessageEvent<JudgeOrder>): void => {
  try {
    postMessage({ id, result: inUnits(units, () => judgings[what](job, rules)) } satisfies JudgeNews)
  } catch (cause) {
    postMessage({ id, error: (cause as Error).message } satisfies JudgeNews)
  }
}
