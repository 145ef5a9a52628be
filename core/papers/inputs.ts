import type { Letterhead } from '#core/quotation/terms'
import { paperSize } from './blocks'
import { usualLabelSheet, type LabelSheetId } from './label-sheets'
import type { SheetInputs } from './sheet'

/** Everything a plain paper is made from, as it was when it was issued. */
export interface PlainInputs extends SheetInputs {
  readonly letterhead: Letterhead
  /** The sheet that labels are printed on. */
  readonly labelSheet: LabelSheetId
  /** Address of the customer's page, for the code on the cards; empty for none. */
  readonly customerPage: string
}

/** A person's choices for a plain paper. */
export type PlainChoices = Partial<Pick<PlainInputs, 'labelSheet' | 'customerPage'>>

/** Inputs of a plain paper; with the usual labels for the size of the paper, and without a code. */
export const plainInputs = (
  inputs: SheetInputs & Pick<PlainInputs, 'letterhead'>,
  { labelSheet, customerPage = '' }: PlainChoices = {},
): PlainInputs => ({
  ...inputs,
  labelSheet: labelSheet ?? usualLabelSheet(paperSize(inputs.shop.units.system)),
  customerPage,
})
