import type { Paper } from '#core/papers/blocks'
import type { Sheet, SheetInputs } from '#core/papers/sheet'
import { sheet, summary, verdict, type Judged, type ListVerdict, type Summarised } from './work'

/** A job whose judging took more than its time. */
export class TooLarge extends Error {}

/** Whatever judges for the server: never inside a transaction. */
export interface Judge {
  verdict(job: Judged): Promise<ListVerdict>
  sheet(inputs: SheetInputs): Promise<Sheet>
  summary(job: Summarised): Promise<Paper>
}

/** Judges on the spot, where nobody waits for anything else: when a database is set up. */
export const judgeHere: Judge = {
  verdict: async (job) => verdict(job),
  sheet: async (inputs) => sheet(inputs),
  summary: async (job) => summary(job),
}
