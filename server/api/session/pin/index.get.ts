import { pinPeople } from '../../../answers/people'
import { isShop } from '../../../utils/mode'
import { json, route } from '../../../utils/route'
import { browserTokenOf, pinDoor } from '../../../utils/session'

/** Who may come in to this browser with a PIN. Another browser gets an empty list. */
export default route({ needs: 'anyone', answer: json(pinPeople) }, async (event) => {
  const browser = browserTokenOf(event)
  return isShop() && browser ? pinDoor().people(browser) : []
})
