import Joi from 'joi'
import { pinState } from '../../../answers/people'
import { repositories } from '../../../utils/database'
import { pinSchema } from '../../../utils/people'
import { json, jsonBody, route } from '../../../utils/route'
import { browserOf, browserTokenOf, keepBrowser } from '../../../utils/session'

const body = Joi.object<{ pin: string }>({ pin: pinSchema })

/** Sets the PIN with which the person comes back to this browser. */
export default route(
  { needs: 'apprentice', body: jsonBody(body), answer: json(pinState), refuses: [403, 404] },
  async (event, { body: { pin } }) => {
    const { personId, session } = browserOf(event)
    const { pins } = await repositories(event)
    keepBrowser(event, await pins.set(personId, session, pin, browserTokenOf(event)))
    return { isSet: true }
  },
)
