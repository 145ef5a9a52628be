import { quotationStates, stateOfQuotation } from '#core/quotation/state'
import type { PaperKind } from '#core/papers/kinds'
import type { SheetRow } from './api'

/** The purpose of each paper, in a line. */
export const paperPurpose: Readonly<Record<PaperKind, string>> = {
  summary: 'For the customer: the answer, the reasons, the changes and the cautions.',
  quotation: 'For the customer: the price of the chosen answer.',
  specification: 'For you and your supplier: parts, work, settings and protection.',
  wiring: 'For the installer: drawing, runs, fuses and what to buy.',
  labels: 'To stick on cable ends, fuses and switches.',
  cards: 'To stick inside the locker: ten cards to a sheet.',
  record: 'For both: the work done, the readings and the signature.',
  booklet: 'For the customer to keep: how to use and store the battery.',
}
/** The view in which a paper is prepared and issued. */
export const paperView: Readonly<Record<PaperKind, string>> = {
  summary: 'papers',
  quotation: 'quotation',
  specification: 'specify',
  wiring: 'papers',
  labels: 'papers',
  cards: 'papers',
  record: 'prove',
  booklet: 'papers',
}

/** State of the newest paper of a kind. */
export function paperState(row: SheetRow | undefined): string {
  if (!row) return 'Not issued'
  if (row.kind !== 'quotation') return 'Issued'
  return quotationStates[
    stateOfQuotation({ until: row.until ?? '', isNewest: true, answer: row.answer }, new Date())
  ]
}

/** Shares a file by the device where it can, and saves it where it cannot. */
export async function shareFile(address: string, name: string): Promise<void> {
  const response = await fetch(address)
  if (!response.ok) throw new Error('The file cannot be fetched')
  const file = new File([await response.blob()], name, { type: 'application/pdf' })
  if ('canShare' in navigator && navigator.canShare({ files: [file] }) && navigator.maxTouchPoints > 0) {
    await navigator.share({ files: [file] }).catch(() => undefined)
    return
  }
  const link = document.createElement('a')
  link.href = URL.createObjectURL(file)
  link.download = name
  link.click()
  setTimeout(() => {
    URL.revokeObjectURL(link.href)
  }, 10_000)
}
