import fc from 'fast-check'
import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { fieldAt, listParts, withField, type FieldPath, type JobDocument } from '#core/job/document'
import { emptyJob } from '#core/job/document'
import { partKindIds } from '#core/job/fields'
import { Reads } from '#core/system/reads'
import { factsOf } from '#core/system/system'
import type { Verdict } from '#core/system/verdict'
import { share } from '#core/testing'
import { assess, findingsOf } from './assess'
import { keyOf } from './result'

// A bad verdict never rests on a value that nobody entered.

const folder = new URL('../../demo/jobs/', import.meta.url)
const demos = readdirSync(folder).map(
  (name) => JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as JobDocument,
)
/** Random orders of deleting values: a few of those in `npm run test:long`. */
const randomOrders = Number(process.env.RANDOM_DELETIONS ?? 10)
const deletions = 10

/** Whether a value is a fact: no limit that may be absent, no decision of the plan, no rule of the shop. */
const isFact = (path: FieldPath): boolean => {
  const { field } = fieldAt(path)!
  if (field.type === 'rows' || field.isDecision) return false
  if (field.type === 'choice') return true
  const { otherwise, isLeast } = field
  return otherwise === undefined || typeof otherwise === 'number' || isLeast === true
}
/** Facts that were entered. */
const enteredIn = (job: JobDocument): FieldPath[] =>
  listParts(job).flatMap(({ path, part }) =>
    Object.entries(part).flatMap(([name, known]) =>
      (known as { value?: unknown } | undefined)?.value != null &&
      fieldAt(`${path}/${name}`) &&
      isFact(`${path}/${name}`)
        ? [`${path}/${name}`]
        : [],
    ),
  )

const verdictsOf = (job: JobDocument): Map<string, Verdict> =>
  new Map(findingsOf(factsOf(job, {})).map(({ id, on, verdict }) => [keyOf(id, on), verdict]))
const isBad = (verdict: Verdict | undefined): boolean =>
  verdict === 'suits-once-changed' || verdict === 'does-not-suit'

/** Checks that are bad without a value, were not with it, and suit with another plausible one. */
function madeUpBy(path: FieldPath, before: JobDocument, after: JobDocument): string[] {
  const was = verdictsOf(before)
  const fresh = [...verdictsOf(after)].filter(([key, verdict]) => isBad(verdict) && !isBad(was.get(key)))
  if (fresh.length === 0) return []
  const facts = factsOf(after, {})
  for (const kind of partKindIds) facts.partsOf(kind)
  const others = facts
    .samples(path, 5, new Reads(facts.slots))
    .map((value) => verdictsOf(withField(after, path, { value: value as never, how: 'measured' })))
  return fresh.flatMap(([key]) => (others.some((verdicts) => verdicts.get(key) === 'suits') ? [key] : []))
}

describe('nothing made up', () => {
  it('no deleted value turns a check bad that another plausible value of it would not', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...demos),
        fc.array(share, { minLength: deletions, maxLength: deletions }),
        (start, picks) => {
          let job = start
          for (const at of picks) {
            const entered = enteredIn(job)
            const path = entered[Math.floor(at * entered.length)]
            if (!path) return
            const without = withField(job, path, { value: null })
            expect({ path, madeUp: madeUpBy(path, job, without) }).toEqual({ path, madeUp: [] })
            job = without
          }
        },
      ),
      { numRuns: randomOrders, seed: 20261129 },
    )
  })

  it('a job of which only the kind of craft is known has no bad verdict', () => {
    for (const craft of ['vessel', 'vehicle', 'trailer', 'motorcycle'] as const) {
      const job = { ...emptyJob('1'), job: { ...emptyJob('1').job, craft } }
      for (const { key, verdict } of assess(job).checks)
        expect({ key, isBad: isBad(verdict) }).toEqual({
          key,
          isBad: false,
        })
    }
  })
})
