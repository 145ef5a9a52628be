// npm run --silent assess -- FILE.json: the assessment of a job file as JSON, with its wiring’s, from the core alone.
import { assess } from '#core/assessment/assess'
import { wiringVerdictOf } from '#core/assessment/wired'
import { fail, jobFromFile } from './lib/job-argument'

const job = await jobFromFile(
  process.argv[2] ?? fail('Name a job file: npm run --silent assess -- FILE.json'),
)
process.stdout.write(`${JSON.stringify({ ...assess(job), wiring: wiringVerdictOf(job) }, null, 2)}\n`)
