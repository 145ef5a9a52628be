import { judgingQueue } from '../utils/database'

/** As soon as the server is up, what an earlier one has left is judged. */
export default defineNitroPlugin(() => {
  judgingQueue().wake()
})
