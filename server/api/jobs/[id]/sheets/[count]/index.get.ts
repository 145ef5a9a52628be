import { sheetOfAddress } from '../../../../../utils/sheet'
import { wholeSheet } from '../../../../../answers/jobs'
import { json, route } from '../../../../../utils/route'

/** A sheet as it was issued. */
export default route({ needs: 'apprentice', answer: json(wholeSheet), refuses: [404] }, async (event) => {
  const { row, sheet } = await sheetOfAddress(event)
  return { ...row, sheet }
})
