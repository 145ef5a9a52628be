import { existsSync } from 'node:fs'
import { isShop, shopSwitch } from '../../utils/mode'
import { modes } from '../../answers/shop'
import { json, route } from '../../utils/route'

/** Whether this start is for a shop, and whether the next one will be. */
export default route({ needs: 'owner', answer: json(modes) }, () => {
  const file = shopSwitch()
  return Promise.resolve({ shop: isShop(), next: file === undefined ? isShop() : existsSync(file) })
})
