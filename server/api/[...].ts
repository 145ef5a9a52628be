import { Refusal, route } from '../utils/reply'

export default route(async () => {
  throw new Refusal(404, 'Nothing is at this address')
})
