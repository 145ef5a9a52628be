// npm run --silent paper -- FILE.json --paper summary|specification|quotation: the blocks of a paper as JSON, from the
// core alone, with the usual rules and letterhead.
import { parseArgs } from 'node:util'
import type { Paper } from '#core/papers/blocks'
import { quotationOf, quotationPaper } from '#core/papers/quotation'
import { sheetInputs, sheetOf } from '#core/papers/sheet'
import { specificationPaper } from '#core/papers/specification'
import { summaryOf } from '#core/papers/summary'
import { usualLetterhead } from '#core/quotation/terms'
import { metric } from '#core/units/display'
import { fail, jobFromFile } from './lib/job-argument'

const names = ['summary', 'specification', 'quotation'] as const
const use = `npm run --silent paper -- FILE.json --paper ${names.join('|')}`
const { values, positionals } = (() => {
  try {
    return parseArgs({ allowPositionals: true, options: { paper: { type: 'string', default: 'summary' } } })
  } catch (cause) {
    return fail(`${(cause as Error).message}. Write ${use}`)
  }
})()
const name = names.find((one) => one === values.paper) ?? fail(`${values.paper}: no such paper. Write ${use}`)
const job = await jobFromFile(positionals[0] ?? fail(`Name a job file: ${use}`))
if (name !== 'summary' && !job.specified) fail('This job has no specification yet. Choose an answer first.')

const madeAt = new Date().toISOString()
const shop = { name: '', units: metric, rules: {} }
const inputs = sheetInputs(job, shop, { number: `${job.job.number}-1`, issuedAt: madeAt, issuedBy: '' })

function paper(): Paper {
  switch (name) {
    case 'summary':
      return summaryOf(job, { ...shop, madeAt })
    case 'specification':
      return specificationPaper(sheetOf(inputs))
    case 'quotation':
      return quotationPaper(quotationOf({ ...inputs, letterhead: usualLetterhead }))
  }
}
process.stdout.write(`${JSON.stringify(paper(), null, 2)}\n`)
