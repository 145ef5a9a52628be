import { letterheadAnswer } from '../../answers/shop'
import { repositories } from '../../utils/database'
import { json, route } from '../../utils/route'

/** The workshop's text for its quotations. */
export default route({ needs: 'apprentice', answer: json(letterheadAnswer) }, async (event) =>
  (await repositories(event)).letterheads.read(),
)
