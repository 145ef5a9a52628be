import { anything } from '../answers/shape'
import { Refusal } from '../utils/refusal'
import { json, route } from '../utils/route'

/** Answers all unknown addresses. */
export default route({ needs: 'anyone', answer: json(anything('Nothing.')), refuses: [404] }, async () => {
  throw new Refusal(404, 'Nothing is at this address')
})
