import { wiredJob, type WiredJob } from '#core/assessment/wired'
import { orderOf } from '#core/commissioning/order/order'
import { asFitted } from '#core/job/as-fitted'
import type { JobDocument } from '#core/job/document'
import { standingReadings } from '#core/job/proving'
import { provingOf } from '#core/job/proving-edits'
import { quotationLines, unpricedNames } from '#core/quotation/lines'
import type { Letterhead } from '#core/quotation/terms'
import { resolveRules, type RuleOverrides } from '#core/rules/rules'
import { numberedPosts } from '#core/wiring/numbered'
import type { Verdict } from '#core/system/verdict'
import type { DisplayUnits } from '#core/units/display'
import { answerKinds, paperKindIds, type PaperKind } from './kinds'

/** Something a paper lacks. A blocking item must be there before it is issued. */
export interface Missing {
  readonly words: string
  readonly stops: boolean
}
export type MissingByKind = Readonly<Record<PaperKind, readonly Missing[]>>

const stops = (words: string): Missing => ({ words, stops: true })
const lacks = (words: string): Missing => ({ words, stops: false })
const counted = (count: number, one: string, many: string): string =>
  count === 1 ? `1 ${one}` : `${count} ${many}`

function openWiring({ checks }: WiredJob): Missing[] {
  const open = checks.filter(({ verdict }) => verdict !== 'suits').length
  return open > 0 ? [lacks(`${counted(open, 'check', 'checks')} of the wiring are open.`)] : []
}

function unplaced({ network }: WiredJob): Missing[] {
  const count = numberedPosts(network, ['fuse', 'switch']).filter(({ place }) => place === null).length
  return count > 0
    ? [lacks(`Enter under Wiring where ${counted(count, 'fuse or switch is', 'fuses and switches are')}.`)]
    : []
}

function unproved(job: JobDocument, settings: { rules: RuleOverrides; units: DisplayUnits }): Missing[] {
  const { steps } = provingOf(job)
  const undone = orderOf(job, settings).filter(({ id }) => steps[id]?.state !== 'done').length
  const readings = standingReadings(provingOf(job)).size
  return [
    ...(undone > 0 ? [lacks(`${counted(undone, 'step is', 'steps are')} not done.`)] : []),
    ...(readings === 0 ? [lacks('No reading was taken.')] : []),
  ]
}

function unsuitableItems(verdict: Verdict | null): Missing[] {
  return verdict === null || verdict === 'suits' ? [] : [lacks('The verdict as specified is not “Suits”.')]
}

/**
 * The missing items of each paper of a job, a sentence each.
 * @param verdict of the job as specified; null if nothing is specified
 */
export function missingOf(
  job: JobDocument,
  shop: { readonly rules: RuleOverrides; readonly units: DisplayUnits; readonly letterhead: Letterhead },
  verdict: Verdict | null,
): MissingByKind {
  const { rules, units, letterhead } = shop
  const wired = wiredJob(asFitted(job), { rules, units })
  const contact =
    letterhead.phone || letterhead.email ? [] : [lacks('The letterhead has no phone or e-mail.')]
  const { labourPerH } = resolveRules(rules, job.rules)
  const unpriced = unpricedNames(quotationLines(job.specified, job.quotation ?? {}, letterhead, labourPerH))
  const own: Readonly<Record<PaperKind, readonly Missing[]>> = {
    summary: [],
    quotation: [
      ...(unpriced.length > 0
        ? [stops(`${counted(unpriced.length, 'price is', 'prices are')} missing.`)]
        : []),
      ...contact,
    ],
    specification: unsuitableItems(verdict),
    wiring: openWiring(wired),
    labels: openWiring(wired),
    cards: [...unsuitableItems(verdict), ...contact],
    record: unproved(job, { rules, units }),
    booklet: [...unsuitableItems(verdict), ...unplaced(wired), ...contact],
  }
  return Object.fromEntries(
    paperKindIds.map((kind) => [
      kind,
      answerKinds.has(kind) && !job.specified ? [stops('Choose an answer under Specify first.')] : own[kind],
    ]),
  ) as Record<PaperKind, readonly Missing[]>
}
