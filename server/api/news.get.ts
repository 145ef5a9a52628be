import Joi from 'joi'
import { newsHub, repositories } from '../utils/database'
import { sendNews } from '../utils/news-stream'
import { media, route } from '../utils/route'

const query = Joi.object<{ window: string }>({
  /** The window that listens. */
  window: Joi.string().guid().required(),
})

/** Changes by others in the workshop, as server-sent events: `job`, `presence` and `again`. */
export default route(
  { needs: 'apprentice', query, answer: media('text/event-stream') },
  async (event, { query: { window } }) => {
    const { presence, workshop } = await repositories(event)
    const closed = (): void => {
      presence.leave(window).catch(() => undefined)
    }
    return sendNews(event, { hub: newsHub(), workshop, closed })
  },
)
