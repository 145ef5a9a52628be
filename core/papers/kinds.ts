import type { Stage } from '#core/job/document'

/** The papers of a job, in the order in which a job needs them. */
export const paperKinds = {
  summary: 'Summary',
  quotation: 'Quotation',
  specification: 'Specification',
  wiring: 'Wiring papers',
  labels: 'Labels',
  cards: 'Settings cards',
  record: 'Installer’s record',
  booklet: 'Customer’s booklet',
} as const
export type PaperKind = keyof typeof paperKinds
export const paperKindIds = Object.keys(paperKinds) as readonly PaperKind[]

/** Papers whose blocks are frozen as they are: they need no inputs from a person. */
export const plainKinds = ['summary', 'wiring', 'labels', 'cards', 'booklet'] as const
export type PlainKind = (typeof plainKinds)[number]
export const isPlainKind = (kind: string): kind is PlainKind =>
  (plainKinds as readonly string[]).includes(kind)

/** Papers that need a chosen answer. */
export const answerKinds: ReadonlySet<PaperKind> = new Set(['quotation', 'specification', 'cards', 'booklet'])
/** Papers that the customer's page shows: labels are for the installer alone. */
export const customerKinds: ReadonlySet<PaperKind> = new Set(paperKindIds.filter((kind) => kind !== 'labels'))

/** The stage that a job has reached once a paper is issued; other papers move nothing. */
export const stageOfPaper: Readonly<Partial<Record<PaperKind, Stage>>> = {
  quotation: 'quoted',
  record: 'signed',
}
