import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { wiredJob } from '#core/assessment/wired'
import type { JobDocument } from '#core/job/document'
import { settingsCards } from '#core/solve/settings'
import { monitorSettings } from '#core/system/monitor'
import { factsOf, usualSystem } from '#core/system/system'
import { anyJobFrom, goodJob, withValues } from '#core/testing'
import { demoJobs } from '../../scripts/bench/demo-jobs'

const demo = demoJobs.map(([, job]) => job)
const randomJobs = Number(process.env.RANDOM_NUMBERS ?? 6)

/** The loss on the way of each run as its check has it against the panel next to the drawing. */
function lossesOf(
  job: JobDocument,
): { readonly run: string; readonly check: number; readonly panel: number }[] {
  const { checks, runs } = wiredJob(job, {})
  return checks
    .filter(({ id }) => id === 'wiring.drop')
    .map(({ on, compared }) => {
      const run = on.replace('runs/', '')
      return { run, check: Number(compared[0].value), panel: runs.find(({ id }) => id === run)!.wayLostV }
    })
}

describe('one number for one thing', () => {
  const expectAlike = (job: JobDocument): void => {
    for (const { run, check, panel } of lossesOf(job))
      expect({ run, volts: panel.toFixed(4) }).toEqual({ run, volts: check.toFixed(4) })
  }

  it('the loss on the way of a run is the same in its check and its panel', () => {
    for (const job of [...demo, goodJob()]) expectAlike(job)
    fc.assert(fc.property(anyJobFrom([...demo, goodJob()]), expectAlike), {
      numRuns: randomJobs,
      seed: 20261129,
    })
  })

  it('the monitor is set on its card as its check says', () => {
    let seen = 0
    for (const job of [...demo, withValues(goodJob(), { 'use/monitor': 'shunt' })]) {
      const system = usualSystem(factsOf(job))
      const { chargedV } = monitorSettings(system)
      const card = settingsCards(system).find(({ unit }) => /monitor/i.test(unit))
      const volts = card?.settings.find(({ unit }) => unit === 'V')?.value
      if (volts === undefined) continue
      seen++
      expect(volts).toBe(chargedV)
    }
    expect(seen).toBeGreaterThan(0)
  })
})
