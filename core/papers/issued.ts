import type { Paper } from './blocks'
import { recordPaper, type FittingRecord } from './record'
import type { Sheet } from './sheet'
import { specificationPaper } from './specification'

/** What is issued for a job, and never changes. */
export type IssuedContent = Sheet | FittingRecord

/** The paper of what was issued. */
export const issuedPaper = (issued: IssuedContent): Paper =>
  issued.format === 'jovial-anchor/record' ? recordPaper(issued) : specificationPaper(issued)
