// npm run --silent paper -- FILE.json --paper KIND: the blocks of a paper as JSON, from the core alone, with the
// usual rules and letterhead.
import { parseArgs } from 'node:util'
import ELK from 'elkjs/lib/elk.bundled.js'
import { layoutOf } from '#core/drawing/layout'
import type { Paper } from '#core/papers/blocks'
import { answerKinds, paperKindIds } from '#core/papers/kinds'
import { plainInputs } from '#core/papers/inputs'
import { plainPaper } from '#core/papers/plain'
import { quotationOf, quotationPaper } from '#core/papers/quotation'
import { recordOf } from '#core/papers/record'
import { recordPaper } from '#core/papers/record-paper'
import { sheetInputs, sheetOf } from '#core/papers/sheet'
import { specificationPaper } from '#core/papers/specification'
import { usualLetterhead } from '#core/quotation/terms'
import { metric } from '#core/units/display'
import { fail, jobFromFile } from './lib/job-argument'

const use = `npm run --silent paper -- FILE.json --paper ${paperKindIds.join('|')}`
const { values, positionals } = (() => {
  try {
    return parseArgs({ allowPositionals: true, options: { paper: { type: 'string', default: 'summary' } } })
  } catch (cause) {
    return fail(`${(cause as Error).message}. Write ${use}`)
  }
})()
const kind =
  paperKindIds.find((one) => one === values.paper) ?? fail(`${values.paper}: no such paper. Write ${use}`)
const job = await jobFromFile(positionals[0] ?? fail(`Name a job file: ${use}`))
if (answerKinds.has(kind) && !job.specified)
  fail('This job has no specification yet. Choose an answer first.')

const shop = { name: '', units: metric, rules: {}, letterhead: usualLetterhead }
const inputs = sheetInputs(job, shop, { number: '', issuedAt: new Date().toISOString(), issuedBy: '' })

async function paper(): Promise<Paper> {
  switch (kind) {
    case 'specification':
      return specificationPaper(sheetOf(inputs))
    case 'quotation':
      return quotationPaper(quotationOf(inputs))
    case 'record':
      return recordPaper(recordOf({ ...inputs, signature: { name: 'not signed', strokes: [] } }))
    default:
      return plainPaper(kind, plainInputs(inputs), (drawing) => layoutOf(drawing, new ELK()))
  }
}
process.stdout.write(`${JSON.stringify(await paper(), null, 2)}\n`)
