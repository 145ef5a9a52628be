import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { withNewPart, withField, withPart, type JobDocument } from '#core/job/document'
import { demoShelf } from '../../scripts/lib/demo-shelf'
import { searchAnswers } from './answers'
import { Evaluator } from './evaluate'
import { search } from './front'
import type { Option } from './option'
import { optionsAt, planOf } from './plan'
import { countOfSets, setsOf } from './twins'

const sidecar = JSON.parse(
  readFileSync(new URL('../../demo/jobs/0433-sidecar-outfit.json', import.meta.url), 'utf8'),
) as JobDocument
const first = 'chargers/charger-1'
const second = 'chargers/charger-2'
const twoAlike: JobDocument = {
  ...sidecar,
  chargers: {
    'charger-1': sidecar.chargers['charger-1']!,
    'charger-2': { ...sidecar.chargers['charger-1']!, name: 'Second charger', notes: 'bought later' },
  },
}
const shelf = demoShelf()
const planned = (job: JobDocument) => planOf(job, {}, shelf)
/** Values that come to the same, of which one was read off a label: two things to look at, for all we know. */
const twoAlmostAlike = withField(twoAlike, `${second}/ratedA`, {
  ...sidecar.chargers['charger-1']!.ratedA!,
  how: 'measured',
})

describe('two chargers that are alike', () => {
  it('are decided together: no two answers differ only in which of them is replaced', () => {
    const names = searchAnswers(planned(twoAlike)).answers.map(({ name }) => name)
    expect(names.length).toBeGreaterThan(1)
    const kinds = names.map((name) =>
      name
        .match(/(?<=replaced by )[^,]+/g)
        ?.sort()
        .join(' and '),
    )
    expect(new Set(kinds).size).toBe(kinds.length)
  })

  it('come to the same as both looked at one by one, with fewer combinations', () => {
    const figuresOf = (job: JobDocument): string[] => {
      const outcomes = [...search(new Evaluator(planned(job)))]
      return [...new Set(outcomes.map(({ figures }) => JSON.stringify(figures)))].sort()
    }
    expect(figuresOf(twoAlike)).toEqual(figuresOf(twoAlmostAlike))
    const [together, apart] = [twoAlike, twoAlmostAlike].map((job) => planned(job).count) as [number, number]
    expect(together).toBe(10)
    expect(apart).toBe(16)
  })

  it('are two of a kind no more where a cable, a value or the wiring of one is another', () => {
    const cabled = withNewPart(twoAlike, 'conductors', { areaMm2: { value: 16, how: 'measured' } })
    const unlike: JobDocument[] = [
      withField(twoAlike, `${second}/absorptionV`, { value: 15.1, how: 'measured' }),
      withPart(cabled.job, cabled.path, (cable) => ({ ...cable, of: first })),
      { ...twoAlike, runs: { 'charger-1-feed': { lengthM: { value: 3, how: 'measured' } } } },
    ]
    for (const job of unlike) expect(planned(job).choices.every(({ axes }) => axes.length === 1)).toBe(true)
    const both = withPart(
      withPart(cabled.job, cabled.path, (cable) => ({ ...cable, of: first })),
      'conductors/cable-9',
      () => ({ areaMm2: { value: 16, how: 'measured' }, of: second }),
    )
    expect(planned(both).choices.some(({ axes }) => axes.length === 2)).toBe(true)
  })

  it('name a run whose length decides as its label does, not as a common noun', () => {
    const parts = searchAnswers(planned(twoAlike)).answers.flatMap(({ conditions }) =>
      conditions.map(({ path, partInSentence }) => [path, partInSentence.slice(0, 3)]),
    )
    expect(parts).toEqual([['runs/charger-1-feed/lengthM', 'W7 ']])
  })

  it('have each combination once, numbered from 0', () => {
    const plan = planned(twoAlike)
    const words = ({ words: text }: Option): string => text
    const all = Array.from({ length: plan.count }, (_, i) => optionsAt(plan, i).map(words).join('; '))
    expect(new Set(all).size).toBe(plan.count)
  })
})

it('sets of options are as many as their count says, each in rising order and none twice', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 5 }), fc.integer({ min: 1, max: 5 }), (options, takers) => {
      const axis = {
        about: first,
        options: Array.from({ length: options }, () => ({ words: '', steps: [] })),
      }
      const twins = Array.from({ length: takers }, () => axis)
      const sets = setsOf(twins)
      expect(sets).toHaveLength(countOfSets(twins))
      expect(new Set(sets.map(String)).size).toBe(sets.length)
      for (const set of sets) {
        expect(set).toHaveLength(takers)
        expect(set.toSorted((a, b) => a - b)).toEqual(set)
        expect(Math.max(...set)).toBeLessThan(options)
      }
    }),
  )
})
