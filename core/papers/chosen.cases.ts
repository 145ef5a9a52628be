import { readFileSync } from 'node:fs'
import { readShelfCsv } from '#core/formats/shelf-csv'
import { withSpecified } from '#core/job/as-specified'
import type { JobDocument } from '#core/job/document'
import { shelfKindIds, type ShelfPart } from '#core/shelf/kinds'
import { searchAnswers } from '#core/solve/answer'
import { planOf } from '#core/solve/plan'
import { specifiedBy } from '#core/solve/specify'
import { metric } from '#core/units/display'

const read = (name: string): string => readFileSync(new URL(`../../demo/${name}`, import.meta.url), 'utf8')
/** The workboat of the demo, as found … */
export const job = JSON.parse(read('jobs/0417-oyster-workboat.json')) as JobDocument
export const shelf: ShelfPart[] = shelfKindIds.flatMap((kind) =>
  readShelfCsv(read(`shelf/${kind}.csv`), kind).parts.map(({ code, name, maker, values }) => ({
    kind,
    version: 1,
    code,
    name,
    maker,
    values,
  })),
)
export const answer = searchAnswers(planOf(job, {}, shelf)).answers.find((a) =>
  a.name.startsWith('40 A DC-DC'),
)!
/** … and with a chosen answer. */
export const chosen = withSpecified(job, specifiedBy(answer, 'Ida Brell', '2026-11-20T10:00:00.000Z'))
export const shop = { name: 'Larkspur Slip Electrics', units: metric, rules: {} }
export const head = { number: '0417-1', issuedAt: '2026-11-21T09:00:00.000Z', issuedBy: 'Ida Brell' }
