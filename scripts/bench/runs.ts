import { readFileSync } from 'node:fs'
import { inputsOfJob } from '#core/simulation/inputs'
import { plantOf } from '#core/simulation/plant-of-job'
import type { RunId } from '#core/simulation/run-kinds'
import { runNow } from '#core/simulation/runs'
import { readEpw, weatherOf } from '#core/weather/epw'
import { demoJob, ms } from './demo-jobs'

const asked: readonly (readonly [string, string, RunId])[] = [
  ['typical year, three sources and two batteries', '0427', 'typical-year'],
  ['typical year, alternator through a diode isolator', '0417', 'typical-year'],
  ['driving day', '0417', 'driving-day'],
  ['lay-up of half a year', '0417', 'lay-up'],
]

/** How long runs take. */
export function benchRuns(): void {
  const epw = readEpw(
    readFileSync(new URL('../../public/weather/port-larkspur.epw', import.meta.url), 'utf8'),
  )
  const weather = epw.ok ? weatherOf(epw.file, 10) : null
  const rows = asked.map(([what, number, run]) => {
    const job = demoJob(number)
    const plant = plantOf(job, {}, 'new')
    const times = Array.from({ length: 4 }, () => {
      const begun = performance.now()
      runNow(run, plant, inputsOfJob(job, run), run === 'typical-year' ? weather : null)
      return performance.now() - begun
    })
    return { run: what, first: ms(times[0]!), best: ms(Math.min(...times)) }
  })
  console.table(rows)
}
