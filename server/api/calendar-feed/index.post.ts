import Joi from 'joi'
import { newFeed } from '../../answers/craft'
import { repositories } from '../../utils/database'
import { jsonBody, made, route } from '../../utils/route'
import { whoSchema } from '../../utils/who'

const body = Joi.object<{ who: string }>({ who: whoSchema })

/** Makes an address for calendars, which ends the one before. Its secret is shown once. */
export default route(
  { needs: 'installer', body: jsonBody(body), answer: made(newFeed) },
  async (event, { body: { who } }) => {
    const { calendarFeeds } = await repositories(event, who)
    return calendarFeeds.make()
  },
)
