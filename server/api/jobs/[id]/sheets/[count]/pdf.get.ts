import { sendPdf } from '../../../../../utils/reply'
import { sheetOfAddress } from '../../../../../utils/sheet'
import { media, route } from '../../../../../utils/route'

/** A sheet as a PDF: A4, or Letter where the shop writes imperial units. Made once, and kept. */
export default route(
  { needs: 'apprentice', answer: media('application/pdf'), refuses: [404] },
  async (event) => {
    const { row, sheet, job, sheets } = await sheetOfAddress(event)
    return sendPdf(event, `${row.kind}-${row.number}`, await sheets.pdf(job, row.count, sheet))
  },
)
