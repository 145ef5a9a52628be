import { existsSync } from 'node:fs'
import { isShop, shopSwitch } from '../../utils/mode'
import { route } from '../../utils/reply'

/** Whether this start is for a shop, and whether the next one will be. */
export default route('owner', () => {
  const file = shopSwitch()
  return Promise.resolve({ shop: isShop(), next: file === undefined ? isShop() : existsSync(file) })
})
