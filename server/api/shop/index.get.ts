import { repositories } from '../../utils/database'
import { shopSettings } from '../../answers/shop'
import { json, route } from '../../utils/route'

/** What the shop has set: name, rules, units. */
export default route({ needs: 'apprentice', answer: json(shopSettings) }, async (event) => {
  const { shop } = await repositories(event)
  return shop.read()
})
