import type { RegistrationResponseJSON } from '@simplewebauthn/server'
import { addedPasskey } from '../../../answers/people'
import { checkNew } from '../../../people/passkeys'
import { repositories } from '../../../utils/database'
import { passkeyBytes, passkeyResponse } from '../../../utils/passkeys'
import { Refusal } from '../../../utils/refusal'
import { jsonBody, made, route } from '../../../utils/route'
import { browserOf, fromOf, passkeyDoor, passkeySite } from '../../../utils/session'

const body = passkeyResponse<RegistrationResponseJSON>()

/** Adds a passkey that the browser has made. */
export default route(
  {
    needs: 'apprentice',
    body: jsonBody(body, passkeyBytes),
    answer: made(addedPasskey),
    refuses: [403, 404, 409],
  },
  async (event, { body: { response } }) => {
    const { personId } = browserOf(event)
    const use = (challenge: string): Promise<boolean> => passkeyDoor().useChallenge(challenge, personId)
    const passkey = await checkNew(passkeySite(event), response, use)
    if (!passkey) throw new Refusal(422, 'This passkey is not valid. Try again')
    const { passkeys } = await repositories(event)
    if (!(await passkeys.add(personId, fromOf(event).device, passkey)))
      throw new Refusal(409, 'This passkey is on the list already')
    return { added: passkey.id }
  },
)
