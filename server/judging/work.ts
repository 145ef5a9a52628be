import { emptyJob, type JobDocument } from '#core/job/document'
import type { Drawing } from '#core/drawing/drawing'
import { layoutOf, type Layout } from '#core/drawing/layout'
import type { Paper } from '#core/papers/blocks'
import { quotationOf, type Quotation, type QuotationInputs } from '#core/papers/quotation'
import { plainInputs, type PlainInputs } from '#core/papers/inputs'
import type { PlainKind } from '#core/papers/kinds'
import { frozenPaper, type PlainPaper } from '#core/papers/plain'
import { sheetInputs, sheetOf, type Sheet, type SheetInputs } from '#core/papers/sheet'
import { recordOf, type FittingRecord, type RecordInputs } from '#core/papers/record'
import { Diagnosis } from '#core/diagnosis/diagnosis'
import { standInStream, type Streamed } from '#core/diagnosis/stream'
import { asFitted } from '#core/job/as-fitted'
import { usualLetterhead } from '#core/quotation/terms'
import type { RuleOverrides } from '#core/rules/rules'
import type { Verdict } from '#core/system/verdict'
import { metric, type DisplayUnits } from '#core/units/display'
import { judgeJob } from '#core/verdict/job'
import ELK from 'elkjs/lib/elk.bundled.js'
import { Kept } from '../papers/kept'
import { paperPdf } from '../papers/pdf'

/** The listed fields of a verdict. */
export interface ListVerdict {
  readonly verdict: Verdict
  readonly headline: string
  readonly reason: string
  /** The same of the chosen answer; null if none is chosen. */
  readonly specified_verdict: Verdict | null
  readonly specified_headline: string | null
}

/** A job, with the rules and the units of its shop. */
export interface Judged {
  readonly document: JobDocument
  readonly rules: RuleOverrides
  readonly units: DisplayUnits
}

/** Answers: a thread that does has loaded everything. */
export const check = (): void => undefined

/** The verdict of a job as lists show it. */
export function verdict({ document, rules, units }: Judged): ListVerdict {
  const { found, specified } = judgeJob(document, { rules, units })
  const { verdict, headline, reason } = found
  return {
    verdict,
    headline,
    reason,
    specified_verdict: specified?.verdict ?? null,
    specified_headline: specified?.headline ?? null,
  }
}

/** Sets a small paper with a drawing: the first that someone asks for then finds fonts and all in place. */
export async function warm(): Promise<void> {
  const shop = { name: '', units: metric, rules: {}, letterhead: usualLetterhead }
  const head = { number: '', issuedAt: '2000-01-01T00:00:00.000Z', issuedBy: '' }
  const inputs = plainInputs(sheetInputs(emptyJob(''), shop, head))
  await paperPdf((await plain({ kind: 'wiring', inputs })).result.paper)
}

export const quotation = (inputs: QuotationInputs): Quotation => quotationOf(inputs)

export const sheet = (inputs: SheetInputs): Sheet => sheetOf(inputs)

export const record = (inputs: RecordInputs): FittingRecord => recordOf(inputs)

/** A job at which a stand-in for an instrument is held. */
export interface HeldAt extends Judged {
  readonly test: string
  readonly seed: number
  readonly hidden: boolean
}

/** The reading of a stand-in instrument at a test of a job; null if the job has no such test. */
export function standIn({
  document,
  rules,
  units,
  test: id,
  seed,
  hidden,
}: HeldAt): readonly Streamed[] | null {
  const { proof, causes } = new Diagnosis(asFitted(document), { rules, units })
  const test = proof.test(id)
  return test ? standInStream(proof, causes, test, { seed, hidden }) : null
}

/** Drawings with their places: laying one out takes longer than all else of its plan’s words. */
const layouts = new Kept<Layout>(30)
const layOut = (drawing: Drawing): Promise<Layout> =>
  layouts.of(JSON.stringify(drawing), () => layoutOf(drawing, new ELK()))

/** A plain paper, and its inputs. */
export interface PlainOrder {
  readonly kind: PlainKind
  readonly inputs: PlainInputs
}
/** A plain paper of a job. */
export const plain = ({ kind, inputs }: PlainOrder): Promise<PlainPaper> => frozenPaper(kind, inputs, layOut)

/** A paper as PDF: the same bytes every time. */
export const pdf = (paper: Paper): Promise<Uint8Array> => paperPdf(paper)
