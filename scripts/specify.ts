// npm run --silent specify -- FILE.json [--shelf FOLDER]: the answers for a job as JSON, their wiring included, from
// the core alone. Without a shelf that of the demo serves.
import { stat } from 'node:fs/promises'
import { parseArgs } from 'node:util'
import { searchAnswers } from '#core/solve/answers'
import { planOf } from '#core/solve/plan'
import { answerRows } from '#core/solve/rows'
import { demoShelf, shelfIn } from './lib/demo-shelf'
import { fail, jobFromFile } from './lib/job-argument'

const use = 'npm run --silent specify -- FILE.json [--shelf FOLDER]'
const { values, positionals } = (() => {
  try {
    return parseArgs({ allowPositionals: true, options: { shelf: { type: 'string' } } })
  } catch (cause) {
    return fail(`${(cause as Error).message}. Write ${use}`)
  }
})()
const job = await jobFromFile(positionals[0] ?? fail(`Name a job file: ${use}`))
if (values.shelf !== undefined && !(await stat(values.shelf).catch(() => null))?.isDirectory())
  fail(`${values.shelf}: no such folder`)
const shelf = values.shelf === undefined ? demoShelf() : shelfIn(values.shelf, fail)
const { answers } = searchAnswers(planOf(job, {}, shelf))
process.stdout.write(`${JSON.stringify(answerRows(answers, shelf), null, 2)}\n`)
