import { dayOf, paperSize, type Paper } from './blocks'
import { paperKinds, type PaperKind } from './kinds'
import type { SheetInputs } from './sheet'

/** Properties of one paper: its size only if it differs from the shop's. */
export type PaperBody = Pick<Paper, 'title' | 'under' | 'sections'> & Partial<Pick<Paper, 'size' | 'type'>>

/**
 * The outer parts that papers of a job share: shop, number, date, logo, foot.
 * A paper without a number is a draft.
 */
export function headOf(
  kind: PaperKind,
  { job, shop, number, issuedAt, letterhead }: SheetInputs,
): Omit<Paper, 'title' | 'under' | 'sections'> {
  const name = number ? `${paperKinds[kind]} ${number}` : `${paperKinds[kind]}, draft, job ${job.job.number}`
  const day = dayOf(issuedAt)
  return {
    over: [shop.name, name, day].filter(Boolean).join(' · '),
    foot: `${name}, ${day}`,
    author: shop.name || 'Jovial Anchor',
    madeAt: issuedAt,
    size: paperSize(shop.units.system),
    ...logoOf(letterhead),
  }
}

/** The logo of a letterhead as a paper takes it. */
export const logoOf = (letterhead: SheetInputs['letterhead']): Pick<Paper, 'logo'> =>
  letterhead?.logo ? { logo: letterhead.logo } : {}
