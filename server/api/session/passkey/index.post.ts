import type { AuthenticationResponseJSON } from '@simplewebauthn/server'
import { signedInAnswer } from '../../../answers/people'
import { checkKnown } from '../../../people/passkeys'
import { isShop } from '../../../utils/mode'
import { passkeyBytes, passkeyResponse } from '../../../utils/passkeys'
import { Refusal } from '../../../utils/refusal'
import { json, jsonBody, route } from '../../../utils/route'
import { fromOf, keepSession, passkeyDoor, passkeySite } from '../../../utils/session'

const body = passkeyResponse<AuthenticationResponseJSON>()

/** Signs the owner of a passkey in. */
export default route(
  {
    needs: 'anyone',
    body: jsonBody(body, passkeyBytes),
    answer: json(signedInAnswer),
    refuses: [401, 404, 409],
  },
  async (event, { body: { response } }) => {
    if (!isShop()) throw new Refusal(404, 'Nobody signs in on one machine')
    const door = passkeyDoor()
    const site = passkeySite(event)
    const known = await door.find(response.id)
    const use = (challenge: string): Promise<boolean> => door.useChallenge(challenge, null)
    const counter = known && (await checkKnown(site, response, known, use))
    if (!known || counter === null)
      throw new Refusal(401, 'This passkey is not known here. Sign in with your password.')
    keepSession(event, await door.enter(known, counter, fromOf(event)))
    return { signedIn: true }
  },
)
