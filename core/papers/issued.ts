import type { Paper } from './blocks'
import type { PaperKind } from './kinds'
import type { PlainPaper } from './plain'
import { quotationPaper, type Quotation } from './quotation'
import type { FittingRecord } from './record'
import { recordPaper } from './record-paper'
import type { Sheet } from './sheet'
import { specificationPaper } from './specification'

/** An issued document of a job, which never changes. */
export type IssuedContent = Sheet | FittingRecord | Quotation | PlainPaper

/** The kind of paper that was issued: its format has its name. */
export const kindOfIssued = ({ format }: IssuedContent): PaperKind =>
  format.slice('jovial-anchor/'.length) as PaperKind

/** The paper of an issued document. */
export function issuedPaper(issued: IssuedContent): Paper {
  switch (issued.format) {
    case 'jovial-anchor/record':
      return recordPaper(issued)
    case 'jovial-anchor/quotation':
      return quotationPaper(issued)
    case 'jovial-anchor/specification':
      return specificationPaper(issued)
    default:
      return issued.result.paper
  }
}
