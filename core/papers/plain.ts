import { asFitted } from '#core/job/as-fitted'
import { wiredJob, worstByPath } from '#core/assessment/wired'
import type { Layout } from '#core/drawing/layout'
import type { Drawing } from '#core/drawing/drawing'
import { paperPalette } from '#core/drawing/look'
import { svgOf } from '#core/drawing/svg'
import { writerIn } from '#core/units/format'
import type { Paper } from './blocks'
import { bookletPaper } from './booklet/booklet'
import { cardsPaper } from './cards'
import { headOf, type PaperBody } from './head'
import type { PlainKind } from './kinds'
import type { PlainInputs } from './inputs'
import { labelCell, labelSheets } from './label-sheets'
import { wiringLabels } from './labels'
import { photosSection } from './photos'
import { summaryOf } from './summary'
import { wiringPaper } from './wiring'

/** A paper whose blocks are frozen as they are. It is kept unchanged. */
export interface PlainPaper {
  readonly format: `jovial-anchor/${PlainKind}`
  readonly version: 1
  readonly inputs: PlainInputs
  readonly result: { readonly paper: Paper }
}

/** Gives a drawing its places. */
export type LayOut = (drawing: Drawing) => Promise<Layout>

async function wiringOf({ job, rules, shop, issuedAt }: PlainInputs, layOut: LayOut): Promise<Paper> {
  const wired = wiredJob(job, { rules, units: shop.units })
  // The letters of papers are given to it by this name, and have no pencil.
  const drawing = svgOf(await layOut(wired.drawing), {
    palette: paperPalette,
    verdicts: worstByPath(wired),
    chosen: null,
    font: 'text-latin',
    byHand: '(by hand)',
  })
  return wiringPaper({ job, wired, drawing, shop, madeAt: issuedAt })
}

function labelsOf({ job, rules, shop, labelSheet }: PlainInputs): PaperBody {
  const { grid, size, name } = labelSheets[labelSheet]
  const wired = wiredJob(asFitted(job), { rules, units: shop.units })
  const cells = wiringLabels(wired, writerIn(shop.units)).map(labelCell)
  return {
    title: `Labels of ${job.job.name || 'this system'}`,
    under: [`${name}. Print at 100 %, without fitting to the page.`],
    size,
    sections: [
      {
        heading: 'Labels',
        about: `${cells.length} labels: two for each cable, one for each fuse, switch and bar`,
        blocks: [{ kind: 'grid', grid, cells }],
      },
    ],
  }
}

async function bodyOf(kind: PlainKind, inputs: PlainInputs, layOut: LayOut): Promise<PaperBody> {
  const { job, rules, shop, issuedAt } = inputs
  switch (kind) {
    case 'summary':
      return summaryOf(job, { rules, ...shop, madeAt: issuedAt })
    case 'wiring':
      return wiringOf(inputs, layOut)
    case 'labels':
      return labelsOf(inputs)
    case 'cards':
      return cardsPaper(inputs)
    case 'booklet':
      return bookletPaper(inputs)
  }
}

/**
 * A plain paper from its inputs alone: the same inputs give the same paper.
 * @throws for cards and the booklet of a job with nothing specified
 */
export async function plainPaper(kind: PlainKind, inputs: PlainInputs, layOut: LayOut): Promise<Paper> {
  const body = await bodyOf(kind, inputs, layOut)
  const head = headOf(kind, inputs)
  const sections = [...body.sections, ...photosSection(inputs.photos)]
  return { ...body, ...head, size: body.size ?? head.size, sections }
}

/** A plain paper with everything it was made from, to be frozen. */
export const frozenPaper = async (
  kind: PlainKind,
  inputs: PlainInputs,
  layOut: LayOut,
): Promise<PlainPaper> => ({
  format: `jovial-anchor/${kind}`,
  version: 1,
  inputs,
  result: { paper: await plainPaper(kind, inputs, layOut) },
})
