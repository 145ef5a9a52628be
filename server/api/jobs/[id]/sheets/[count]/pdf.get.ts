import { setResponseHeaders } from 'h3'
import { route } from '../../../../../utils/reply'
import { sheetOfAddress } from '../../../../../utils/sheet'
import { sheetPdf } from '../../../../../utils/sheet-pdf'

/** A sheet as a PDF: A4, or Letter where the shop writes imperial units. */
export default route(async (event) => {
  const { row, sheet } = await sheetOfAddress(event)
  const data = await sheetPdf(sheet)
  setResponseHeaders(event, {
    'content-type': 'application/pdf',
    'content-disposition': `inline; filename="specification-${row.number.replace(/[^\w-]/g, '_')}.pdf"`,
  })
  return data
})
