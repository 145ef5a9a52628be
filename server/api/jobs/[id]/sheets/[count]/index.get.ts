import { route } from '../../../../../utils/reply'
import { sheetOfAddress } from '../../../../../utils/sheet'

/** A sheet as it was issued. */
export default route('apprentice', async (event) => {
  const { row, sheet } = await sheetOfAddress(event)
  return { ...row, sheet }
})
