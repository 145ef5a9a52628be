// npm run demo-years: works out the answers and papers that take too long for a first start, and writes them to
// demo/years: an accepted and a declined quotation, and a signed job with its papers. Run it after a change of
// papers.
import { writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import ELK from 'elkjs/lib/elk.bundled.js'
import { chanceOf } from '#core/commissioning/chance'
import { orderOf } from '#core/commissioning/order/order'
import { Diagnosis } from '#core/diagnosis/diagnosis'
import { drawnRig, StandIn } from '#core/diagnosis/instruments'
import { layoutOf } from '#core/drawing/layout'
import { asFitted } from '#core/job/as-fitted'
import { withSpecified } from '#core/job/as-specified'
import type { JobDocument } from '#core/job/document'
import type { Proving } from '#core/job/proving'
import type { Specified } from '#core/job/specified'
import { plainInputs } from '#core/papers/inputs'
import type { IssuedContent } from '#core/papers/issued'
import { frozenPaper } from '#core/papers/plain'
import { quotationOf } from '#core/papers/quotation'
import { recordOf } from '#core/papers/record'
import { sheetInputs, sheetOf } from '#core/papers/sheet'
import { usualLetterhead } from '#core/quotation/terms'
import { searchAnswers } from '#core/solve/answers'
import { planOf } from '#core/solve/plan'
import { specifiedBy } from '#core/solve/specify'
import { metric } from '#core/units/display'
import type { DemoYears } from '../server/db/demo-years'
import { demoShelf } from './lib/demo-shelf'
import { examples } from './lib/examples'

const seed = 433
const by = 'Ida Brell'
const shop = { name: 'Larkspur Slip Electrics', units: metric, rules: {}, letterhead: usualLetterhead }
const jobOf = (number: string): JobDocument => examples().find(({ title }) => title === `job ${number}`)!.job

/** The best answer of a job, chosen on a day. */
function bestOf(number: string, at: string): Specified {
  const [best] = searchAnswers(planOf(jobOf(number), {}, demoShelf())).answers
  if (!best) throw new Error(`Job ${number} has no answer`)
  return specifiedBy(best, by, at)
}

const readsByEye: ReadonlySet<string> = new Set(['answer', 'size'])
/** A sound system, proved: every step done, every essential test read. */
function provingOf(job: JobDocument, when: string): Proving {
  const settings = { units: metric }
  const diagnosis = new Diagnosis(asFitted(job), settings)
  const { proof } = diagnosis
  const chance = chanceOf(seed)
  const meter = new StandIn(proof, drawnRig(proof, proof.rig, chance), chance)
  return {
    steps: Object.fromEntries(
      orderOf(job, settings).map(({ id }) => [id, { state: 'done' as const, when, by }]),
    ),
    readings: Object.fromEntries(
      diagnosis.essential.tests.map((test) => [
        test.id,
        // Looks pass; measurements scatter.
        [
          {
            value: readsByEye.has(test.quantity) ? meter.truthOf(test) : meter.read(test),
            when,
            by,
            from: 'live' as const,
          },
        ],
      ]),
    ),
    mended: [],
    fitted: [],
  }
}

const headOf = (number: string, issuedAt: string) => ({ number, issuedAt, issuedBy: by })
const inputsOf = (job: JobDocument, number: string, issuedAt: string) => ({
  ...sheetInputs(job, shop, headOf(number, issuedAt)),
  letterhead: usualLetterhead,
})
/** Every line of a quotation has a price. */
function quotation(job: JobDocument, number: string, issuedAt: string): IssuedContent {
  const inputs = inputsOf(job, number, issuedAt)
  const bare = quotationOf(inputs)
  const missing = bare.result.lines.filter(({ price }) => price === null).map(({ id }) => id)
  if (missing.length === 0) return bare
  const prices = Object.fromEntries(missing.map((id) => [id, { price: 18 }]))
  return quotationOf({ ...inputs, job: { ...job, quotation: { ...job.quotation, lines: prices } } })
}

const sent = bestOf('0424', '2026-11-20T10:00:00.000Z')
const declined = bestOf('0430', '2026-11-04T10:00:00.000Z')
const accepted = bestOf('0433', '2026-11-02T10:00:00.000Z')
const fitted = withSpecified(jobOf('0433'), accepted)
const proving = provingOf(fitted, '2026-11-24T14:00:00.000Z')
const proved: JobDocument = { ...fitted, proving }
const signedAt = '2026-11-24T16:30:00.000Z'
const plain = (kind: 'cards' | 'booklet', count: number): Promise<IssuedContent> =>
  frozenPaper(kind, plainInputs(inputsOf(proved, `0433-${count}`, signedAt)), (drawing) =>
    layoutOf(drawing, new ELK()),
  )
const years: DemoYears = {
  jobs: {
    '0424': { specified: sent, stage: 'quoted' },
    '0430': { specified: declined, stage: 'quoted' },
    '0433': { specified: accepted, proving, stage: 'signed' },
  },
  papers: [
    {
      job: '0430',
      content: quotation(withSpecified(jobOf('0430'), declined), '0430-1', '2026-11-05T10:00:00.000Z'),
      answer: { answer: 'declined', name: 'Orla Penhallow', note: 'Not before the next season' },
    },
    {
      job: '0433',
      content: quotation(fitted, '0433-1', '2026-11-03T10:00:00.000Z'),
      answer: { answer: 'accepted', name: 'Bram Askew', note: '' },
    },
    { job: '0433', content: sheetOf(inputsOf(fitted, '0433-2', '2026-11-10T10:00:00.000Z')) },
    {
      job: '0433',
      content: recordOf({ ...inputsOf(proved, '0433-3', signedAt), signature: { name: by, strokes: [] } }),
    },
    { job: '0433', content: await plain('cards', 4) },
    { job: '0433', content: await plain('booklet', 5) },
  ],
}
writeFileSync(
  fileURLToPath(new URL('../demo/years/years.json', import.meta.url)),
  `${JSON.stringify(years)}\n`,
)
