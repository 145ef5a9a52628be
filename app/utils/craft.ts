import type { CraftKind } from '#core/job/document'
import type { CraftPage, CraftRow, FleetRow } from '../../server/repositories/crafts'
import type { CustomerPage, CustomerPaper, CustomerRow } from '../../server/repositories/customers'
import type { JobRow } from '../../server/repositories/job-list'
import type { CraftPhoto } from '../../server/repositories/photos'
import type { ReminderRow } from '../../server/repositories/reminders'
import type { DueJob, FlaggedCraft, WaitingQuotation } from '../../server/repositories/today'
import type { Stage } from '#core/job/document'

export type {
  CraftPage,
  CraftPhoto,
  CraftRow,
  CustomerPage,
  CustomerPaper,
  CustomerRow,
  DueJob,
  FlaggedCraft,
  FleetRow,
  ReminderRow,
  WaitingQuotation,
}

export interface WholeCraft {
  readonly craft: CraftRow
  readonly jobs: readonly JobRow[]
  readonly fleet: readonly FleetRow[]
  readonly photos: readonly CraftPhoto[]
  readonly reminders: readonly ReminderRow[]
}
export interface WholeCustomer {
  readonly customer: CustomerRow
  readonly crafts: readonly CraftRow[]
  readonly papers: readonly CustomerPaper[]
}
export interface TodayAnswer {
  readonly stages: Readonly<Record<Stage, number>>
  readonly due: readonly DueJob[]
  readonly waiting: readonly WaitingQuotation[]
  readonly flagged: readonly FlaggedCraft[]
  readonly reminders: readonly ReminderRow[]
}

/** The values of a craft's form. */
export interface CraftDraft {
  name: string
  kind: CraftKind | null
  registration: string
  location: string
  notes: string
  type: string
  customerId: string | null
}
export const draftOfCraft = (craft?: CraftRow): CraftDraft => ({
  name: craft?.name ?? '',
  kind: craft?.kind ?? null,
  registration: craft?.registration ?? '',
  location: craft?.location ?? '',
  notes: craft?.notes ?? '',
  type: craft?.type ?? '',
  customerId: craft?.customerId ?? null,
})

const dayFormat = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
})
/** A day or a moment as a day: `29 Nov 2026`. */
export const shownDay = (day: string): string => dayFormat.format(new Date(day.slice(0, 10)))
/** The day of today here. */
export const todayHere = (): string => {
  const now = new Date()
  const two = (n: number): string => String(n).padStart(2, '0')
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`
}
