import { runIds, runKind } from './run-kinds'
import { runNow } from './runs'
import { everySecond } from './pace'
import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { type JobDocument } from '#core/job/document'
import { apart } from './simulation.cases'
import { plantOf } from './plant-of-job'
import { inputsOfJob } from './inputs'

const folder = new URL('../../demo/jobs/', import.meta.url)
const jobs = readdirSync(folder).map(
  (name) => [name, JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as JobDocument] as const,
)

const near = (a: number | null, b: number | null, share: number): boolean =>
  a === b || (a !== null && b !== null && Math.abs(a - b) <= share * Math.max(1, Math.abs(b)))

describe('every run of every demo job', () => {
  it.each(jobs)('%s balances to 0.1 % and agrees to 0.1 % with a step of one second', (_name, job) => {
    for (const fitted of ['old', 'new'] as const) {
      const plant = plantOf(job, {}, fitted)
      for (const id of runIds) {
        const asked = inputsOfJob(job, id)
        // The errors of a year’s long steps even out over some days.
        const most = runKind(id).needsWeather ? 5 : 1.5
        const short = { ...asked, days: Math.min(asked.days, most) }
        const [whole, fine] = [runNow(id, plant, short), runNow(id, plant, short, null, everySecond)]
        expect({
          id,
          fitted,
          imbalance: whole.totals.imbalance < 0.001,
          residual: whole.totals.residualA < 0.001,
        }).toEqual({ id, fitted, imbalance: true, residual: true })
        expect({ id, fitted, flows: apart(whole.totals, fine.totals) < 0.001 }).toEqual({
          id,
          fitted,
          flows: true,
        })
        for (const what of [
          'endSoc',
          'leastSoc',
          'hours',
          'fullAfterH',
          'darkAfterH',
          'alternatorPeakC',
          'coldRefusedH',
          'heaterWh',
        ] as const) {
          expect({
            id,
            fitted,
            what,
            near: near(whole.totals[what], fine.totals[what], most > 2 ? 0.005 : 0.002),
          }).toEqual({
            id,
            fitted,
            what,
            near: true,
          })
        }
      }
    }
  })
})
