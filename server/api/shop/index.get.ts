import { repositories } from '../../utils/database'
import { shopSettings } from '../../answers/shop'
import { json, route } from '../../utils/route'

/** The shop's settings: name, rules, units. */
export default route({ needs: 'apprentice', answer: json(shopSettings) }, async (event) => {
  const { shop } = await repositories(event)
  return shop.read()
})
