import type { H3Event } from 'h3'
import { offersOf } from '#core/papers/offers'
import { issuedPaper } from '#core/papers/issued'
import { customerKinds } from '#core/papers/kinds'
import type { Paper } from '#core/papers/blocks'
import { formatMoney, type Minor } from '#core/quotation/money'
import { stateOfQuotation, type QuotationState } from '#core/quotation/state'
import { CustomerDoor, type Opened } from '../repositories/customer-links'
import type { Sheets, SheetRow } from '../repositories/sheets'
import { database } from './database'
import { Refusal } from './refusal'
import { fromOf } from './session'

/** The job of a customer's link. @throws a refusal where the link is unknown, or too many were */
export async function customerOf(
  event: H3Event,
  token: string,
  isOpening: boolean,
): Promise<Opened & { readonly kind: 'open' }> {
  const opened = await new CustomerDoor(database()).enter(token, fromOf(event).address, isOpening)
  if (opened.kind === 'wait')
    throw new Refusal(429, `Too many wrong links. Try again in ${opened.minutes} min.`)
  if (opened.kind === 'unknown')
    throw new Refusal(404, 'This link is not valid any more. Ask the workshop for a new one.')
  return opened
}

/** A paper as a customer sees it. */
export interface CustomerPaper {
  readonly count: number
  readonly number: string
  readonly kind: SheetRow['kind']
  readonly issuedAt: string
  readonly paper: Paper
  readonly quotation?: {
    readonly state: QuotationState
    /** The chosen answer, then its alternatives, each with its total and its options. */
    readonly offers: readonly {
      readonly id: string
      readonly name: string
      readonly total: string
      readonly options: readonly { readonly id: string; readonly name: string; readonly amount: string }[]
    }[]
    readonly answer: {
      readonly answer: 'accepted' | 'declined'
      readonly name: string
      readonly at: string
    } | null
    readonly canAnswer: boolean
  }
}

/** The newest paper of each kind of a job, as its customer sees it: never its inputs. */
export async function papersForCustomer(sheets: Sheets, job: string): Promise<readonly CustomerPaper[]> {
  const rows = await sheets.list(job)
  const newest = rows.filter(
    (row, i) => customerKinds.has(row.kind) && rows.findIndex(({ kind }) => kind === row.kind) === i,
  )
  const papers = await Promise.all(newest.map((row) => paperOf(sheets, job, row)))
  return papers.filter((paper) => paper !== null)
}

async function paperOf(sheets: Sheets, job: string, row: SheetRow): Promise<CustomerPaper | null> {
  const found = await sheets.read(job, row.count)
  if (!found) return null
  const { sheet } = found
  const { count, number, kind, issuedAt, answer } = row
  const shown = { count, number, kind, issuedAt, paper: issuedPaper(sheet) }
  if (sheet.format !== 'jovial-anchor/quotation') return shown
  const { currency, locale } = sheet.inputs.letterhead
  const money = (amount: Minor): string => formatMoney(amount, currency, locale)
  const state = stateOfQuotation({ until: sheet.result.until, isNewest: true, answer }, new Date())
  return {
    ...shown,
    quotation: {
      state,
      offers: offersOf(sheet).map(({ id, name, lines, totals }) => ({
        id,
        name,
        total: money(totals.total),
        options: lines
          .filter(({ isOptional }) => isOptional)
          .map((line) => ({ id: line.id, name: line.name, amount: money(line.net ?? 0) })),
      })),
      answer: answer && { answer: answer.answer, name: answer.name, at: answer.at },
      canAnswer: state === 'sent',
    },
  }
}
