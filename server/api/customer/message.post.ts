import Joi from 'joi'
import { sentMessage } from '../../answers/customer'
import { customerOf } from '../../utils/customer'
import { repositoriesFor } from '../../utils/database'
import { tokenSchema } from '../../utils/people'
import { longText, plainText } from '../../utils/plain-text'
import { Refusal } from '../../utils/refusal'
import { jsonBody, made, route } from '../../utils/route'

const body = Joi.object<{ token: string; name: string; words: string }>({
  token: tokenSchema,
  name: plainText(100).min(1).required(),
  words: longText(2000).min(1).required(),
})

/** Takes a message of a customer, from the page of their link. */
export default route(
  { needs: 'anyone', body: jsonBody(body, 32 * 1024), answer: made(sentMessage), refuses: [404, 429] },
  async (event, { body: { token, name, words } }) => {
    const { job, actor } = await customerOf(event, token, false)
    const { customerMessages } = repositoriesFor(actor)
    if (!(await customerMessages.add(job, { name, words })))
      throw new Refusal(429, 'There were too many messages today. Call the workshop.')
    return { sent: true }
  },
)
