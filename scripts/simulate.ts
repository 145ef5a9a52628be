// npm run --silent simulate -- FILE.json --run NAME [--battery old] [--weather FILE.epw]: a run of a job as
// JSON, from the core alone.
import { runIds, type RunId } from '#core/simulation/run-kinds'
import { readFile } from 'node:fs/promises'
import { parseArgs } from 'node:util'
import { partsOf } from '#core/job/document'
import { plantOf } from '#core/simulation/plant-of-job'
import { inputsOfJob } from '#core/simulation/inputs'
import { runNow } from '#core/simulation/runs'
import { readEpw, weatherOf } from '#core/weather/epw'
import { fail, jobFromFile } from './lib/job-argument'

const usage = `npm run --silent simulate -- FILE.json --run NAME [--battery old] [--weather FILE.epw]; NAME is one of ${runIds.join(', ')}`
const { values, positionals } = (() => {
  try {
    return parseArgs({
      allowPositionals: true,
      options: {
        run: { type: 'string' },
        battery: { type: 'string', default: 'new' },
        weather: { type: 'string' },
      },
    })
  } catch (cause) {
    return fail(`${(cause as Error).message}\n${usage}`)
  }
})()
const run = runIds.find((id) => id === values.run) ?? fail(usage)
const fitted = values.battery === 'old' || values.battery === 'new' ? values.battery : fail(usage)
const job = await jobFromFile(positionals[0] ?? fail(usage))
const tilt = (partsOf(job, 'solar')[0]?.part.tilt as { value: number | null } | undefined)?.value ?? 0
let weather = null
if (values.weather) {
  const read = readEpw(
    await readFile(values.weather, 'utf8').catch(() => fail(`${values.weather}: no such file`)),
  )
  if (!read.ok) fail(`${values.weather}, line ${read.line}: ${read.error}`)
  weather = weatherOf(read.file, tilt)
}
process.stdout.write(
  `${JSON.stringify(runNow(run as RunId, plantOf(job, {}, fitted), inputsOfJob(job, run as RunId), weather), null, 2)}\n`,
)
