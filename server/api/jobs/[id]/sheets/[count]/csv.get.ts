import { setResponseHeaders } from 'h3'
import { sheetCsv } from '#core/formats/sheet-csv'
import { Refusal } from '../../../../../utils/refusal'
import { sheetOfAddress } from '../../../../../utils/sheet'
import { media, route } from '../../../../../utils/route'

/** The parts list of a sheet. */
export default route({ needs: 'apprentice', answer: media('text/csv'), refuses: [404] }, async (event) => {
  const { row, sheet } = await sheetOfAddress(event)
  if (sheet.format !== 'jovial-anchor/specification')
    throw new Refusal(404, 'A signed record has no parts list')
  const text = sheetCsv(sheet)
  setResponseHeaders(event, {
    'content-type': 'text/csv; charset=utf-8',
    'content-disposition': `attachment; filename="parts-${row.number.replace(/[^\w-]/g, '_')}.csv"`,
  })
  return text
})
