import { specificationPaper } from '#core/papers/specification'
import { paperPdf } from '../../../../../papers/pdf'
import { route, sendPdf } from '../../../../../utils/reply'
import { sheetOfAddress } from '../../../../../utils/sheet'

/** A sheet as a PDF: A4, or Letter where the shop writes imperial units. */
export default route(async (event) => {
  const { row, sheet } = await sheetOfAddress(event)
  return sendPdf(event, `specification-${row.number}`, await paperPdf(specificationPaper(sheet)))
})
