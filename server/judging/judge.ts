import type { Paper } from '#core/papers/blocks'
import type { PlainPaper } from '#core/papers/plain'
import type { FittingRecord, RecordInputs } from '#core/papers/record'
import type { Quotation, QuotationInputs } from '#core/papers/quotation'
import type { Sheet, SheetInputs } from '#core/papers/sheet'
import type { Streamed } from '#core/diagnosis/stream'
import {
  check,
  pdf,
  plain,
  quotation,
  record,
  sheet,
  standIn,
  verdict,
  warm,
  type HeldAt,
  type Judged,
  type ListVerdict,
  type PlainOrder,
} from './work'

/** A job whose checking took more than its time. */
export class TooLarge extends Error {}

/** Whatever checks for the server: never inside a transaction. */
export interface Judge {
  /** Answers once it can check. */
  check(): Promise<void>
  /** Makes itself ready for papers. */
  warm(): Promise<void>
  verdict(job: Judged): Promise<ListVerdict>
  sheet(inputs: SheetInputs): Promise<Sheet>
  quotation(inputs: QuotationInputs): Promise<Quotation>
  /** A plain paper of a job. */
  plain(order: PlainOrder): Promise<PlainPaper>
  record(inputs: RecordInputs): Promise<FittingRecord>
  /** The reading of a stand-in instrument at a test; null if the job has no such test. */
  standIn(held: HeldAt): Promise<readonly Streamed[] | null>
  pdf(paper: Paper): Promise<Uint8Array>
}

/** Checks on the spot, if nobody waits for anything else: when a database is set up. */
export const judgeHere: Judge = {
  check: async () => check(),
  warm,
  verdict: async (job) => verdict(job),
  sheet: async (inputs) => sheet(inputs),
  quotation: async (inputs) => quotation(inputs),
  record: async (inputs) => record(inputs),
  standIn: async (held) => standIn(held),
  plain,
  pdf,
}
