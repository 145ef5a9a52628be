import { repositories } from '../../../../../utils/database'
import { jobId, route, sendPdf } from '../../../../../utils/reply'
import { sheetOfAddress } from '../../../../../utils/sheet'

/** A sheet as a PDF: A4, or Letter where the shop writes imperial units. Made once, and kept. */
export default route(async (event) => {
  const { row, sheet } = await sheetOfAddress(event)
  const { sheets } = await repositories()
  return sendPdf(event, `specification-${row.number}`, await sheets.pdf(jobId(event), row.count, sheet))
})
