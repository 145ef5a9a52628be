import { setResponseHeaders } from 'h3'
import { quotationCsv } from '#core/formats/quotation-csv'
import { sheetCsv } from '#core/formats/sheet-csv'
import { Refusal } from '../../../../../utils/refusal'
import { sheetOfAddress } from '../../../../../utils/sheet'
import { media, route } from '../../../../../utils/route'

/** The parts list of a specification, or the lines of a quotation. */
export default route({ needs: 'apprentice', answer: media('text/csv'), refuses: [404] }, async (event) => {
  const { row, sheet } = await sheetOfAddress(event)
  if (sheet.format !== 'jovial-anchor/quotation' && sheet.format !== 'jovial-anchor/specification')
    throw new Refusal(404, 'This paper has no list of parts')
  const isQuotation = sheet.format === 'jovial-anchor/quotation'
  const name = `${isQuotation ? 'quotation' : 'parts'}-${row.number}`.replace(/[^\w-]/g, '_')
  const text = isQuotation ? quotationCsv(sheet) : sheetCsv(sheet)
  setResponseHeaders(event, {
    'content-type': 'text/csv; charset=utf-8',
    'content-disposition': `attachment; filename="${name}.csv"`,
  })
  return text
})
