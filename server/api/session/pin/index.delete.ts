import { pinState } from '../../../answers/people'
import { repositories } from '../../../utils/database'
import { json, route } from '../../../utils/route'
import { browserOf, browserTokenOf } from '../../../utils/session'

/** Removes the person's PIN from this browser. */
export default route({ needs: 'apprentice', answer: json(pinState), refuses: [403, 404] }, async (event) => {
  const { personId } = browserOf(event)
  const browser = browserTokenOf(event)
  if (browser) await (await repositories(event)).pins.remove(personId, browser)
  return { isSet: false }
})
