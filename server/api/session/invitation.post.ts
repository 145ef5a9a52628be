import Joi from 'joi'
import { readJson } from '../../utils/body'
import { tokenSchema } from '../../utils/people'
import { Refusal } from '../../utils/refusal'
import { route, validated } from '../../utils/reply'
import { entrance } from '../../utils/session'

const body = Joi.object<{ token: string }>({ token: tokenSchema })

/** Who an invitation is for. The secret comes in the body, so that no log holds it. */
export default route('anyone', async (event) => {
  const { token } = validated(body, await readJson(event, 4096))
  const invited = await entrance().invited(token)
  if (!invited) throw new Refusal(404, 'This link was used or is too old. Ask the owner for a new one.')
  return invited
})
