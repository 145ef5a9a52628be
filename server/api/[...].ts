import { Refusal } from '../utils/refusal'
import { route } from '../utils/reply'

export default route('anyone', async () => {
  throw new Refusal(404, 'Nothing is at this address')
})
