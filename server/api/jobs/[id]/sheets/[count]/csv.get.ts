import { setResponseHeaders } from 'h3'
import { sheetCsv } from '#core/formats/sheet-csv'
import { Refusal } from '../../../../../utils/refusal'
import { route } from '../../../../../utils/reply'
import { sheetOfAddress } from '../../../../../utils/sheet'

/** The parts list of a sheet. */
export default route('apprentice', async (event) => {
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
