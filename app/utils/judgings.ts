import { assessAhead } from '#core/assessment/assess'
import { compareCandidates } from '#core/compare/candidates'
import { schoolsOf } from '#core/solve/answer'
import type { JobDocument } from '#core/job/document'
import type { RuleOverrides } from '#core/rules/rules'
import { inUnits, type DisplayUnits } from '#core/units/display'

/** Judgings that carry out runs and therefore take too long for the page's own thread, by name. */
export const judgings = {
  ahead: (job: JobDocument, rules: RuleOverrides) => assessAhead(job, rules),
  schools: (job: JobDocument, rules: RuleOverrides) => schoolsOf(job, rules),
  candidates: (job: JobDocument, rules: RuleOverrides) => compareCandidates(job, rules),
} as const
export type Judging = keyof typeof judgings
export type Judged<K extends Judging> = ReturnType<(typeof judgings)[K]>

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

let worker: Worker | null = null
let orders = 0
const waiting = new Map<number, { readonly done: (result: unknown) => void; readonly failed: (reason: Error) => void }>()

function theWorker(): Worker {
  if (worker) return worker
  worker = new Worker(new URL('../workers/judge.worker.ts', import.meta.url), { type: 'module' })
  worker.onmessage = ({ data: { id, result, error } }: MessageEvent<JudgeNews>) => {
    const { done, failed } = waiting.get(id) ?? {}
    waiting.delete(id)
    if (error === undefined) done?.(result)
    else failed?.(new Error(error))
  }
  worker.onerror = ({ message }) => {
    for (const { failed } of waiting.values()) failed(new Error(message))
    waiting.clear()
    worker = null
  }
  return worker
}

/** Judges a job in a worker, one for the whole application; where there are none, at once. */
export function judge<K extends Judging>(what: K, job: JobDocument, rules: RuleOverrides, units: DisplayUnits): Promise<Judged<K>> {
  if (typeof Worker === 'undefined') return Promise.resolve(inUnits(units, () => judgings[what](job, rules)) as Judged<K>)
  const id = ++orders
  return new Promise((done, failed) => {
    waiting.set(id, { done: done as (result: unknown) => void, failed })
    // A document out of a store has proxies inside, which cannot be sent.
    theWorker().postMessage({ id, what, job: JSON.parse(JSON.stringify(job)) as JobDocument, rules: { ...rules }, units: { ...units } } satisfies JudgeOrder)
  })
}
