import type { Sheet, SheetInputs } from '#core/papers/sheet'
import {
  sheet,
  sheetPdf,
  summaryPdf,
  verdict,
  wiringPdf,
  type Judged,
  type ListVerdict,
  type Summarised,
} from './work'

/** A job whose judging took more than its time. */
export class TooLarge extends Error {}

/** Whatever judges for the server: never inside a transaction. */
export interface Judge {
  verdict(job: Judged): Promise<ListVerdict>
  sheet(inputs: SheetInputs): Promise<Sheet>
  /** The summary of a job, as PDF. */
  summaryPdf(job: Summarised): Promise<Uint8Array>
  /** An issued sheet, as PDF. */
  sheetPdf(sheet: Sheet): Promise<Uint8Array>
  /** The plan of the wiring of a job, as PDF. */
  wiringPdf(job: Summarised): Promise<Uint8Array>
}

/** Judges on the spot, where nobody waits for anything else: when a database is set up. */
export const judgeHere: Judge = {
  verdict: async (job) => verdict(job),
  sheet: async (inputs) => sheet(inputs),
  summaryPdf,
  sheetPdf,
  wiringPdf,
}
