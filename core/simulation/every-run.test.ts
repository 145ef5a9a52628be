import { runIds, runKind } from './run-kinds'
import { runNow } from './runs'
import { everySecond } from './pace'
import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { long } from '#core/testing'
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

/** Demo jobs whose runs are compared with steps of a second: all of them in `npm run test:long`. */
const referenceJobs = Number(process.env.REFERENCE_JOBS ?? 2)

/** Every run of a job, with its old and its new battery, over a few days. */
const runsOf = (job: JobDocument) =>
  (['old', 'new'] as const).flatMap((fitted) => {
    const plant = plantOf(job, {}, fitted)
    return runIds.map((id) => {
      const asked = inputsOfJob(job, id)
      // The errors of a year’s long steps even out over some days.
      const most = runKind(id).needsWeather ? 5 : 1.5
      const inputs = { ...asked, days: Math.min(asked.days, most) }
      return { id, fitted, plant, inputs, allowed: most > 2 ? 0.005 : 0.002 }
    })
  })

const compared = [
  'endSoc',
  'leastSoc',
  'hours',
  'fullAfterH',
  'darkAfterH',
  'alternatorPeakC',
  'coldRefusedH',
  'heaterWh',
] as const

describe('every run of every demo job', () => {
  it.each(jobs)('%s balances to 0.1 %', (_name, job) => {
    for (const { id, fitted, plant, inputs } of runsOf(job)) {
      const { imbalance, residualA } = runNow(id, plant, inputs).totals
      expect({ id, fitted, imbalance: imbalance < 0.001, residual: residualA < 0.001 }).toEqual({
        id,
        fitted,
        imbalance: true,
        residual: true,
      })
    }
  })

  it.each(jobs.slice(0, referenceJobs))(
    '%s agrees to 0.1 % with a step of one second',
    long,
    (_name, job) => {
      for (const { id, fitted, plant, inputs, allowed } of runsOf(job)) {
        const whole = runNow(id, plant, inputs).totals
        const fine = runNow(id, plant, inputs, null, everySecond).totals
        expect({ id, fitted, flows: apart(whole, fine) < 0.001 }).toEqual({ id, fitted, flows: true })
        const far = compared.filter((what) => !near(whole[what], fine[what], allowed))
        expect({ id, fitted, far }).toEqual({ id, fitted, far: [] })
      }
    },
  )
})
