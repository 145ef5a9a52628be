import { getQuery } from 'h3'
import Joi from 'joi'
import { newsHub, repositories } from '../utils/database'
import { sendNews } from '../utils/news-stream'
import { route, validated } from '../utils/reply'

const query = Joi.object<{ window: string }>({
  /** The window that listens. */
  window: Joi.string().guid().required(),
})

/** What others change in the workshop, as server-sent events: `job`, `presence` and `again`. */
export default route('apprentice', async (event) => {
  const { window } = validated(query, getQuery(event))
  const { presence, workshop } = await repositories(event)
  const closed = (): void => {
    presence.leave(window).catch(() => undefined)
  }
  return sendNews(event, { hub: newsHub(), workshop, closed })
})
