import { completeJob } from '#core/job/complete'
import { specifiedBy } from './specify'
import { schoolsOf } from './schools'
import { beats, bestOf, mostAnswers, nearestOf, outcomeOf, search, type Outcome } from './front'
import { mostCombinations, optionsAt, planOf } from './plan'
import { Shares } from './shares'
import { Evaluator, type Figures } from './evaluate'
import fc from 'fast-check'
import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { findingsOf } from '#core/assessment/assess'
import { applyChanges } from '#core/job/changes'
import { emptyJob, withField, withoutPart, type JobDocument } from '#core/job/document'
import type { RuleOverrides } from '#core/rules/rules'
import { factsOf, usualSystem } from '#core/system/system'
import { asSpecified, withSpecified } from '#core/job/as-specified'
import type { ShelfPart } from '#core/shelf/kinds'
import {
  assessed,
  charger,
  goodJob,
  straightJob,
  withArray,
  withMeasured,
  withValues,
  long,
} from '#core/testing'
import { adjust, isSure, type Answer } from './answer'
import { answersOf, FullAnswers, searchAnswers } from './answers'
import { judgeJob } from '#core/verdict/job'
import type { RemedyRef } from '#core/remedies/catalogue'
import { suppliesFor } from '#core/remedies/supply'
import { demoShelf } from '../../scripts/lib/demo-shelf'

const folder = new URL('../../demo/jobs/', import.meta.url)
const jobs = Object.fromEntries(
  readdirSync(folder).map((name) => [
    name.slice(0, 4),
    JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as JobDocument,
  ]),
)
const shelf = demoShelf()
const solved = new Map<string, ReturnType<typeof searchAnswers>>()
const solvedFor = (number: string): ReturnType<typeof searchAnswers> => {
  if (!solved.has(number)) solved.set(number, searchAnswers(planOf(jobs[number]!, {}, shelf)))
  return solved.get(number)!
}
const answersFor = (number: string): readonly Answer[] => solvedFor(number).answers
const named = (answers: readonly Answer[], pattern: RegExp): Answer => {
  const found = answers.find((a) => pattern.test(a.name))
  if (!found) throw new Error(`No answer like ${pattern}: ${answers.map((a) => a.name).join(' | ')}`)
  return found
}
const jobOf = (job: JobDocument, answer: Answer): JobDocument =>
  applyChanges(completeJob(job), answer.changes)

describe.each(Object.keys(jobs))('the answers for job %s', (number) => {
  const job = jobs[number]!

  it('suit when they are applied, except for values to measure or to tell the customer', () => {
    const answers = answersFor(number)
    expect(answers.length).toBeGreaterThan(0)
    expect(answers.length).toBeLessThanOrEqual(mostAnswers)
    for (const answer of answers) {
      const { checks } = assessed(jobOf(job, answer))
      expect(checks.filter((c) => c.verdict === 'does-not-suit').map((c) => c.id)).toEqual([])
      expect(answer.inTheWay).toEqual([])
      expect(checks.filter((c) => c.verdict === 'suits-once-changed').length).toBe(answer.accepted.length)
      expect(answer.name).not.toMatch(/undefined|NaN/)
    }
  })

  it('are beaten by no other, and each step names its parts and hours', () => {
    const answers = answersFor(number)
    for (const a of answers)
      for (const b of answers) if (a !== b) expect(beats(a.figures, b.figures)).toBe(false)
    for (const { steps, figures, cards, changes } of answers) {
      for (const step of steps) expect(step.label).not.toMatch(/undefined|NaN|–/)
      expect(figures.cost).toBeGreaterThanOrEqual(figures.partsCost)
      const { monitor } = applyChanges(jobs[number]!, changes).use
      expect(cards.some(({ unit }) => unit === 'Battery monitor')).toBe(monitor?.value === 'shunt')
      for (const card of cards)
        for (const setting of card.settings)
          if (typeof setting.value === 'number') expect(Number.isFinite(setting.value)).toBe(true)
    }
  })
})

describe('the answers of every demo job', () => {
  it('keep the battery that was chosen, or say first why none does', () => {
    for (const number of Object.keys(jobs)) {
      const { answers, batteryGoes } = solvedFor(number)
      const keeps = answers.filter(({ battery }) => battery === null)
      expect({ number, says: batteryGoes !== null }).toEqual({
        number,
        says: answers.length > 0 && keeps.length === 0,
      })
    }
    expect(solvedFor('0430').batteryGoes).toMatch(/[0-9]+ A/)
  })

  it('hold no two steps on one fuse or plug, and no step of another size than its part', () => {
    for (const number of Object.keys(jobs))
      for (const { steps } of answersFor(number)) {
        const keys = steps.map(({ ref }) => `${ref.id}@${ref.on}`)
        expect(new Set(keys).size).toBe(keys.length)
        for (const { ref, values, label } of steps) {
          const ratedA = (values.ratedA as { value?: number } | undefined)?.value
          if (ratedA !== undefined && ref.value !== undefined && !ref.on.startsWith('conductors/'))
            expect({ label, value: ref.value }).toEqual({ label, value: ratedA })
        }
      }
  })

  it('begin with the one closest to the bench’s proposal, to the size of the DC-DC', () => {
    const dcdcOf = (steps: readonly { readonly ref: RemedyRef }[]) =>
      steps.find(({ ref }) => ref.id === 'dcdc.add')
    const [workboat] = answersFor('0417')
    const proposed = judgeJob(jobs['0417']!).found.changes.find(({ id }) => id === 'dcdc.add')
    expect(proposed?.value).toBeGreaterThan(0)
    expect(dcdcOf(workboat!.steps)?.ref.value).toBe(proposed!.value)
    // The shelf has no DC-DC of the size proposed for the van: the nearest, held down, stands in for it.
    expect(dcdcOf(answersFor('0421')[0]!.steps)).toBeDefined()
    for (const number of Object.keys(jobs)) {
      const [, ...others] = answersFor(number)
      const costs = others.filter(isSure).map(({ figures }) => figures.cost)
      expect(costs).toEqual(costs.toSorted((a, b) => a - b))
    }
  })

  it('come to different systems', () => {
    for (const number of Object.keys(jobs)) {
      const made = answersFor(number).map(({ changes, steps }) =>
        JSON.stringify([
          changes.map(({ path, after }) => JSON.stringify([path, after])).toSorted(),
          steps.flatMap(({ parts }) => parts.map(({ code }) => code)).toSorted(),
        ]),
      )
      expect(new Set(made).size).toBe(made.length)
    }
  })
})

describe('the answers of an installer', () => {
  it('the workboat: a DC-DC and the equalise stage off, and the shore charger stays', () => {
    const answer = named(
      answersFor('0417'),
      /^40 A DC-DC on ignition signal, switch equalise off, keep shore charger$/,
    )
    const job = jobOf(jobs['0417']!, answer)
    expect(job.links['link-1']).toMatchObject({ kind: { value: 'dcdc' }, signal: { value: 'wire' } })
    expect(job.chargers['charger-1']!.equaliseStage).toMatchObject({ value: 'off' })
    expect(answer.steps.find((s) => s.ref.id === 'charger.equalise-off')!.settles).toEqual([
      'charger.equalise',
    ])
    expect(answer.steps.find((s) => s.ref.id === 'dcdc.add')!.parts[0]).toMatchObject({
      code: 'CUR-D40',
      price: 290,
    })
  })

  it('the rescue van: a running signal, warm cells without a place nobody has seen, and the driving that is missing in hours', () => {
    const answer = named(
      answersFor('0421'),
      /DC-DC on ignition signal.*, Pipit H 120 pad under it, fit 2 in parallel/,
    )
    const job = jobOf(jobs['0421']!, answer)
    expect(job.candidate).toMatchObject({ heater: { value: 'yes' }, weightKg: { value: 18.5 } })
    expect(answer.figures.unseen).toBe(0)
    expect(answer.foreseen.join(' ')).toMatch(/\d+ Ah a day is missing, which takes [\d.]+ h more driving/)
    expect(answer.foreseen.join(' ')).toMatch(/heater uses \d+ Ah a day/)
    expect(answer.cautions.join(' ')).toContain('charging starts late on a cold day')
  })

  it('the tug: a hybrid under its owner’s school, a DC-DC between under the other', () => {
    const hybrid = named(answersFor('0427'), /^Hybrid bank with stops and switches/)
    expect(jobOf(jobs['0427']!, hybrid).use).toMatchObject({
      mixed: { value: 'hybrid' },
      chargeStop: { value: 'yes' },
      isolators: { value: 'yes' },
    })
    expect(hybrid.cards.map((card) => card.unit)).toContain('Stops of the lithium')
    const never: JobDocument = { ...jobs['0427']!, rules: { ...jobs['0427']!.rules, mixedSchool: 'never' } }
    const { answers } = searchAnswers(planOf(never, {}, shelf))
    expect(answers.length).toBeGreaterThan(0)
    for (const answer of answers) {
      expect(jobOf(never, answer).use.mixed).toMatchObject({ value: 'dcdc' })
      expect(answer.steps.flatMap((s) => s.parts).some((p) => p.kind === 'dcdc')).toBe(true)
    }
  })

  it('the bus: a sure answer, one that depends on two measurements, and the saving of measuring them', () => {
    const { answers, worth } = searchAnswers(planOf(jobs['0424']!, {}, shelf))
    expect(answers.some(isSure)).toBe(true)
    const drawnRig = named(answers, /^Depot charger as it is$/)
    expect(drawnRig).toMatchObject({ verdict: 'measure-first', steps: [] })
    expect(drawnRig.conditions.map(({ label, minutes, range }) => [label, minutes, range])).toEqual([
      ['Absorption voltage', 10, [13.8, 14.6]],
      ['Float voltage', 60, [13.2, 13.6]],
    ])
    expect(drawnRig.conditions.map(({ partInSentence }) => partInSentence)).toEqual([
      'Depot charger',
      'Depot charger',
    ])
    const cheapest = Math.min(...answers.filter(isSure).map(({ figures }) => figures.cost))
    expect(worth[0]).toMatchObject({ answer: drawnRig.id, cost: cheapest - drawnRig.figures.cost })
  })

  it('the sidecar: a maintainer of a few amperes, not a large unit turned down', () => {
    const [cheapest] = answersFor('0433')
    const [unit] = cheapest!.steps.flatMap(({ parts }) => parts)
    expect(unit!.name).toBe('Ternstrom 2 Maintainer')
    for (const { steps } of answersFor('0433'))
      expect(steps.map(({ ref }) => ref.id)).not.toContain('charger.limit-current')
  })

  it('the van: some answers are sure at any rise of its alternator, and some depend on it', () => {
    const answers = answersFor('0421')
    expect(answers.filter(isSure).length).toBeGreaterThan(0)
    const ifs = answers.filter((answer) => !isSure(answer))
    expect(ifs.length).toBeGreaterThan(0)
    for (const { conditions } of ifs)
      expect(conditions.map(({ path }) => path)).toEqual(['alternators/alternator-1/riseK'])
  })

  it('the tug: an answer that is not full in three days names the missing charge a day', () => {
    const figures = answersFor('0427').map((answer) => answer.figures)
    for (const { hoursToFull, moreAhADay } of figures) expect(moreAhADay === null).toBe(hoursToFull !== null)
    expect(figures[0]!.moreAhADay).toBeGreaterThan(1)
  })

  it('no inverter is held back where another battery carries it for a like price', () => {
    for (const { figures } of answersFor('0430')) expect(figures.givesUpW).toBe(0)
  })

  it('a shop that replaces every charger without a lithium profile keeps none', long, () => {
    const { answers } = searchAnswers(planOf(jobs['0417']!, { rules: { chargerSchool: 'replace' } }, shelf))
    expect(answers.length).toBeGreaterThan(0)
    for (const answer of answers) expect(answer.name).not.toMatch(/keep shore charger/)
  })

  it('the school on protecting the alternator decides the first option', () => {
    const first = (alternatorSchool: 'dcdc' | 'duty' | 'regulator'): string =>
      planOf(jobs['0417']!, { rules: { alternatorSchool } }, shelf).axes[0]!.options[0]!.words
    expect(first('dcdc')).toMatch(/DC-DC/)
    expect(first('duty')).toMatch(/uty-cycling/)
    expect(first('regulator')).toMatch(/xternal regulator/)
  })

  it('a job that nothing on the shelf can settle says so, and names the nearest miss with its reason', () => {
    const stuck = withValues(charger({ equaliseStage: 'fixed', equaliseV: 15.5 }), {
      'houseBank/nominalV': '12',
    })
    const { answers, nearest } = searchAnswers(
      planOf(
        withValues(stuck, {
          'use/mixed': 'replaced',
          'place/widthMm': 100,
          'place/depthMm': 80,
          'place/heightMm': 60,
        }),
        {},
        shelf,
      ),
    )
    expect(answers).toEqual([])
    expect(nearest!.inTheWay.map((c) => c.id)).toContain('battery.fit')
    expect(nearest!.inTheWay.find((c) => c.id === 'battery.fit')!.summary).toMatch(/\d/)
  })

  it('a charger that is only too slow, which a run alone shows, is replaced by a larger one', () => {
    const slow = charger({ ratedA: 6 })
    expect(findingsOf(factsOf(slow)).every((f) => f.verdict === 'suits')).toBe(true)
    const { answers } = searchAnswers(planOf(slow, {}, shelf))
    expect(answers.length).toBeGreaterThan(0)
    for (const answer of answers)
      expect(answer.steps.find((s) => s.ref.id === 'charger.replace')!.settles).toContain('charger.time')
  })

  it('an empty shelf still gives answers, with everything’s price to be asked', long, () => {
    const { answers } = searchAnswers(planOf(jobs['0417']!, {}, []))
    expect(answers.length).toBeGreaterThan(0)
    expect(answers[0]!.figures.unpriced).toBeGreaterThan(0)
    expect(answers[0]!.steps.flatMap((s) => s.parts).every((p) => p.price === null)).toBe(true)
  })

  it('an empty job, or one with only unknowns, is no crash', () => {
    expect(planOf(emptyJob('1'), {}, shelf).count).toBeGreaterThan(0)
    const { answers, nearest } = searchAnswers(planOf(emptyJob('1'), {}, []))
    expect(answers.length + (nearest ? 1 : 0)).toBeGreaterThan(0)
  })
})

describe('a pack without a cold cut, on sun alone at −15 °C', () => {
  const cold = withArray(
    { panelW: 200, parallel: 1 },
    withoutPart(
      withValues(goodJob(), {
        'place/coldestC': -15,
        'candidate/coldCut': 'no',
        'links/link-1/kind': 'none',
        'use/dailyAh': 10,
      }),
      'chargers/charger-1',
    ),
  )
  it('is not cured by a heater, which holds no charge off, but by a warmer place', () => {
    const { answers } = searchAnswers(planOf(cold, {}, shelf))
    expect(answers.length).toBeGreaterThan(0)
    const steps = answers.flatMap((answer) => answer.steps.map(({ ref }) => ref.id))
    expect(steps).toContain('cold.warmer-place')
    expect(steps).not.toContain('cold.heater')
  })
  it('has no answer on an open trailer, where no place is warmer', () => {
    const { answers, nearest } = searchAnswers(
      planOf({ ...cold, job: { ...cold.job, craft: 'trailer' } }, {}, shelf),
    )
    expect(answers).toEqual([])
    expect(nearest).not.toBeNull()
  })
})

describe('an answer changed by hand', () => {
  const evaluator = new Evaluator(planOf(jobs['0417']!, {}, shelf))
  it('with a step left out names the obstacle that comes back', () => {
    const answer = named(answersFor('0417'), /switch equalise off/)
    const step = answer.steps.findIndex((s) => s.ref.id === 'charger.equalise-off')
    const less = adjust(evaluator, answer, [{ step, off: true }])
    expect(less.verdict).toBe('suits-once-changed')
    expect(less.inTheWay.map((c) => c.id)).toContain('charger.equalise')
    expect(less.name).toMatch(/\(by hand\)$/)
    expect(less.name).not.toContain('switch equalise off')
    expect(adjust(evaluator, answer, [])).toMatchObject({
      name: answer.name,
      verdict: answer.verdict,
      changes: answer.changes,
    })
  })
  it('with another part of the shelf is that part in label, cost and system', () => {
    const answer = named(answersFor('0417'), /^30 A DC-DC/)
    const at = answer.steps.findIndex((s) => s.ref.id === 'dcdc.add')
    const own = answer.steps[at]!
    const other = own.exchanges!.find(({ name }) => name === 'Curlew D 40')!
    const changed = adjust(evaluator, answer, [{ step: at, part: other.code }])
    const step = changed.steps.find((s) => s.ref.id === 'dcdc.add')!
    expect(step.parts[0]).toMatchObject({ code: other.code, name: 'Curlew D 40' })
    expect(step.label).toContain('40 A')
    const job = jobOf(jobs['0417']!, changed)
    expect(job.links['link-1']!.ratedA).toMatchObject({ value: 40 })
    expect(job.links['link-1']!.signal).toEqual(jobOf(jobs['0417']!, answer).links['link-1']!.signal)
    expect(changed.verdict).toBe('suits')
    expect(changed.figures.partsCost - answer.figures.partsCost).toBeGreaterThan(0)
  })
  it('keeps its part where the shelf has none of that code', () => {
    const answer = named(answersFor('0417'), /^30 A DC-DC/)
    const at = answer.steps.findIndex((s) => s.ref.id === 'dcdc.add')
    const changed = adjust(evaluator, answer, [{ step: at, part: 'no-such-part' }])
    expect(changed.steps.find((s) => s.ref.id === 'dcdc.add')!.parts).toEqual(answer.steps[at]!.parts)
  })
  it('with another value is checked with it', long, () => {
    const answer = named(answersFor('0417'), /^60 A DC-DC/)
    const step = answer.steps.findIndex((s) => s.ref.id === 'charger.limit-current')
    const hot = adjust(evaluator, answer, [{ step, value: 60 }])
    expect(hot.inTheWay.map((c) => c.id)).toContain('dcdc.output')
  })
})

describe('the specification', () => {
  it('stays next to the untouched survey, and goes again', () => {
    const job = jobs['0417']!
    const answer = answersFor('0417')[0]!
    const chosen = withSpecified(job, specifiedBy(answer, 'Ida Brell', '2026-11-20T10:00:00.000Z'))
    expect(withSpecified(chosen, null)).toEqual(job)
    expect({ ...chosen, specified: undefined }).toEqual({ ...job, specified: undefined })
    expect(asSpecified(chosen)).toEqual(jobOf(job, answer))
    expect(asSpecified(job)).toBe(job)
    expect(assessed(chosen, {}, { quick: true }).verdict).toBe(assessed(job, {}, { quick: true }).verdict)
  })
})

describe('the search', () => {
  const plan = planOf(jobs['0417']!, {}, shelf)
  it('is the same twice, and the same in shares', long, () => {
    const all = [...search(new Evaluator(plan))]
    const shares = new Shares([...plan.keeping, ...plan.exchanging], 2)
    const evaluators = [new Evaluator(plan), new Evaluator(plan)]
    const shared: Outcome[] = []
    while (shared.length < plan.count)
      evaluators.forEach((evaluator, searcher) => {
        const next = shares.next(searcher)
        if (next) shared.push(...search(evaluator, next))
      })
    expect(shared.toSorted((a, b) => a.index - b.index)).toEqual(all)
    expect(all).toHaveLength(plan.count)
  })
  it.each(['0417', '0430'])(
    'looks no further than it must, and answers job %s as if it had',
    long,
    (number) => {
      const planned = planOf(jobs[number]!, {}, shelf)
      const full = new FullAnswers(new Evaluator(planned))
      const whole = answersOf(full, [...search(full.evaluator)])
      const keeping = answersOf(full, [...search(full.evaluator, planned.keeping)])
      expect(searchAnswers(planned)).toEqual(whole)
      // Searchers that share the work hand their outcomes on in any order.
      expect(answersOf(full, [...search(full.evaluator)].toReversed())).toEqual(whole)
      expect(keeping).toEqual(whole?.batteryGoes === null ? whole : null)
    },
  )
  it('keeps its battery in some combinations, and takes each of the others in its place', () => {
    const planned = planOf(jobs['0430']!, {}, shelf)
    const { keeping, exchanging } = planned
    expect([...keeping, ...exchanging].toSorted((a, b) => a - b)).toEqual(
      Array.from({ length: planned.count }, (_, index) => index),
    )
    const batteryOf = (index: number) => optionsAt(planned, index).find(({ battery }) => battery)?.battery
    expect(keeping.every((index) => batteryOf(index) === undefined)).toBe(true)
    expect(exchanging.every((index) => batteryOf(index) !== undefined)).toBe(true)
    expect(exchanging).not.toHaveLength(0)
  })
  it('never has more combinations than it may, whatever the job', () => {
    let many = goodJob()
    for (let i = 0; i < 6; i++)
      many = withMeasured(many, 'chargers', {
        ratedA: 30,
        profile: 'fixed',
        absorptionV: 15,
        floatMode: 'on',
        floatV: 14.5,
        equaliseStage: 'fixed',
        equaliseV: 16,
        compensation: 'none',
      })
    expect(planOf(many, {}, shelf).count).toBeLessThanOrEqual(mostCombinations)
  })
  it('leaves the survey as it is', () => {
    const copy = JSON.stringify(jobs['0421'])
    new Evaluator(planOf(jobs['0421']!, {}, shelf)).evaluate(0)
    expect(JSON.stringify(jobs['0421'])).toBe(copy)
  })
  it('quick findings are those of the whole assessment', () => {
    for (const job of [
      ...Object.values(jobs),
      withField(jobs['0421']!, 'alternators/alternator-1/regulatorV', { value: null }),
      straightJob({ kind: null }),
    ]) {
      const quick = findingsOf(factsOf(job)).map((f) => [`${f.id}@${f.on}`, f.verdict])
      expect(quick).toEqual(assessed(job, {}, { quick: true }).checks.map((c) => [c.key, c.verdict]))
    }
  })
})

describe('choosing among outcomes', () => {
  const figures = fc
    .record({
      cost: fc.integer({ min: 100, max: 5000 }),
      hoursToFull: fc.option(fc.integer({ min: 1, max: 70 })),
      alternatorPeakC: fc.option(fc.integer({ min: 60, max: 130 })),
      changes: fc.integer({ min: 0, max: 8 }),
      unseen: fc.integer({ min: 0, max: 2 }),
    })
    .map((f): Figures => ({
      ...f,
      partsCost: f.cost,
      hours: 0,
      unpriced: 0,
      unservedAh: 0,
      givesUpW: 0,
      daysAway: 1,
      moreAhADay: null,
      endsAt: 1,
    }))
  const outcomes = fc.array(fc.option(figures), { maxLength: 60 }).map((list) =>
    list.map((f, index): Outcome => ({
      index,
      figures: f,
      key: String(index),
      sure: true,
      keepsBattery: true,
      short: f ? 0 : 100 + index,
    })),
  )
  it('keeps at most eight, none beaten by any, and the cheapest of all that is not beaten', () => {
    fc.assert(
      fc.property(outcomes, (list) => {
        const best = bestOf(list)
        expect(best.length).toBeLessThanOrEqual(mostAnswers)
        for (const o of best)
          for (const other of list) if (other.figures) expect(beats(other.figures, o.figures!)).toBe(false)
        if (list.some((o) => o.figures)) expect(best.length).toBeGreaterThan(0)
      }),
      { numRuns: 300 },
    )
  })
  it('one that rests on something unseen never beats one that does not', () => {
    fc.assert(
      fc.property(figures, figures, (a, b) => {
        if (a.unseen > b.unseen) expect(beats(a, b)).toBe(false)
      }),
    )
  })
  const plain: Figures = {
    cost: 1,
    partsCost: 1,
    hours: 0,
    unpriced: 0,
    hoursToFull: 1,
    alternatorPeakC: 50,
    changes: 1,
    unseen: 0,
    unservedAh: 0,
    givesUpW: 0,
    daysAway: 1,
    moreAhADay: null,
    endsAt: 1,
  }
  it('another battery is shown only where none with the chosen one is sure', () => {
    const make = (index: number, keepsBattery: boolean, sure: boolean, cost: number): Outcome => ({
      index,
      key: String(index),
      sure,
      keepsBattery,
      short: 0,
      figures: { ...plain, cost },
    })
    const [own, other] = [make(0, true, true, 900), make(1, false, true, 500)]
    expect(bestOf([own, other])).toEqual([own])
    expect(bestOf([make(0, true, false, 900), other])).toContain(other)
  })
  it('the same steps count once; the nearest is the least far', () => {
    const one: Outcome = {
      index: 0,
      key: 'a',
      sure: true,
      keepsBattery: true,
      short: 0,
      figures: plain,
    }
    expect(bestOf([one, { ...one, index: 1 }])).toHaveLength(1)
    expect(
      nearestOf([
        { ...one, index: 3, figures: null, short: 200 },
        { ...one, index: 4, figures: null, short: 100 },
      ])!.index,
    ).toBe(4)
    expect(nearestOf([])).toBeNull()
    expect(outcomeOf(new Evaluator(planOf(jobs['0424']!, {}, shelf)).evaluate(0)).short).toBe(0)
  })
})

describe('parts from the shelf', () => {
  const job = jobs['0417']!
  const system = usualSystem(factsOf(job))
  it('fit the voltages of the job, the nearest size first', () => {
    const [first] = suppliesFor(
      { id: 'dcdc.add', on: 'links/link-1', value: 38, values: { inputV: '12' } },
      job,
      system,
      shelf,
    )
    expect(first!.parts[0]).toMatchObject({ code: 'CUR-D40', quantity: 1 })
    for (const { parts } of suppliesFor(
      { id: 'dcdc.add', on: 'links/link-1', value: 38, values: { inputV: '24' } },
      job,
      system,
      shelf,
      9,
    )) {
      const part = shelf.find((p) => p.code === parts[0]!.code)!
      expect([part.values.inputV, part.values.outputV]).toEqual(['24', '12'])
    }
  })
  it('a battery without a price comes after all that have one', () => {
    const small = withValues(goodJob(), { 'candidate/ahEach': 100, 'use/dailyAh': 400 })
    const namesOn = (parts: readonly ShelfPart[]): string[] =>
      planOf(small, {}, parts)
        .axes.flatMap(({ options }) => options)
        .flatMap(({ battery }) => (battery ? [battery.part.name] : []))
    const [cheapest] = namesOn(shelf)
    const unpriced = shelf.map((part): ShelfPart => {
      const { price: _, ...values } = part.values
      return part.name === cheapest ? { ...part, values } : part
    })
    expect(namesOn(unpriced)[0]).not.toBe(cheapest)
    expect(namesOn(unpriced.filter(({ name, kind }) => kind !== 'batteries' || name === cheapest))).toContain(
      cheapest,
    )
  })
  it('are named without a price where the shelf holds none', () => {
    expect(
      suppliesFor({ id: 'source.diversion', on: 'sources/source-1' }, job, system, shelf)[0]!.parts,
    ).toEqual([
      {
        kind: null,
        code: '',
        version: 0,
        name: 'Diversion load with its switch',
        quantity: 1,
        unit: '',
        price: null,
      },
    ])
    expect(
      suppliesFor({ id: 'charger.equalise-off', on: 'chargers/charger-1' }, job, system, shelf)[0]!.parts,
    ).toEqual([])
  })
  it('cable comes by the metre, there and back', () => {
    expect(
      suppliesFor({ id: 'link.cable', on: 'links/link-1', value: 6.2 }, job, system, shelf)[0]!.parts[0],
    ).toMatchObject({ quantity: 13, unit: 'm' })
  })
})

describe('schools', () => {
  it('show the result of the other one, and change nothing where they agree', () => {
    const views = schoolsOf(jobs['0417']!, {})
    const charging = views.find((v) => v.rule === 'chargerSchool')!
    expect(charging.others[0]).toMatchObject({ verdict: 'does-not-suit' })
    expect(charging.others[0]!.differs.join(' ')).toContain('no lithium profile')
    expect(views.find((v) => v.rule === 'mixedSchool')!.others[0]!.differs).toEqual([])
    expect(schoolsOf(jobs['0427']!, {}).find((v) => v.rule === 'mixedSchool')).toMatchObject({
      own: true,
      others: [{ verdict: 'does-not-suit' }],
    })
  })
})

describe('each school of the disagreement table', () => {
  const job = jobs['0417']!
  const best = (rules: RuleOverrides, of: JobDocument = job) =>
    searchAnswers(planOf(of, { rules }, shelf)).answers
  it('charge rate: the largest figure lets larger chargers in', () => {
    const small = withValues(charger({ ratedA: 110, currentLimit: 'fixed' }), {
      'candidate/recommendedChargeA': 30,
      'candidate/largestChargeA': 60,
    })
    const sizes = (rules: RuleOverrides) =>
      Math.max(...best(rules, small).map((a) => jobOf(small, a).chargers['charger-1']!.ratedA!.value!))
    expect(sizes({ chargeRateSchool: 'recommended' })).toBeLessThanOrEqual(30)
    expect(sizes({ chargeRateSchool: 'largest' })).toBeGreaterThan(30)
  })
  it('lead behind a DC-DC: the unit of the answer is the one that is wired', () => {
    const plan = planOf(jobs['0427']!, {}, shelf)
    const parted = searchAnswers(plan).answers.find(({ steps }) =>
      steps.some(({ ref }) => ref.id === 'mixed.separate'),
    )!
    const done = applyChanges(plan.job, parted.changes)
    const unit = parted.steps.flatMap(({ parts }) => parts).find(({ kind }) => kind === 'dcdc')!
    const { ratedA } = shelf.find(({ code }) => code === unit.code)!.values
    expect(done.use.mixed).toMatchObject({ value: 'dcdc' })
    expect(done.use.betweenA).toMatchObject({ value: ratedA, how: 'maker' })
  })
  it('running signal: voltage is trusted where the shop trusts it, never under a computer', long, () => {
    const either = shelf.map((part): ShelfPart =>
      part.kind === 'dcdc' ? { ...part, values: { ...part.values, signal: 'voltage' } } : part,
    )
    const signals = (rules: RuleOverrides, of: JobDocument) =>
      new Set(
        searchAnswers(planOf(of, { rules }, either)).answers.flatMap((a) =>
          jobOf(of, a).links['link-1']?.kind?.value === 'dcdc'
            ? [jobOf(of, a).links['link-1']!.signal!.value]
            : [],
        ),
      )
    const plain = straightJob({ kind: 'solenoid' })
    expect(signals({}, plain)).toEqual(new Set(['wire']))
    expect(signals({ signalSchool: 'voltage' }, plain)).toEqual(new Set(['voltage']))
    expect(signals({ signalSchool: 'voltage' }, jobs['0421']!)).toEqual(new Set(['wire']))
  })
  it('usable share and lay-up change the checks', () => {
    const [wide, narrow] = [100, 75].map(
      (usableLithium) =>
        assessed(job, { rules: { usableLithium } }, { quick: true }).checks.find(
          (c) => c.id === 'battery.usable',
        )!.compared[0].value as number,
    )
    expect(wide).toBeGreaterThan(narrow!)
  })
})
