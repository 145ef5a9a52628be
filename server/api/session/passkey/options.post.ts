import { passkeyOptions } from '../../../answers/people'
import { optionsToEnter } from '../../../people/passkeys'
import { isShop } from '../../../utils/mode'
import { Refusal } from '../../../utils/refusal'
import { json, route } from '../../../utils/route'
import { passkeyDoor, passkeySite } from '../../../utils/session'

/** Options for a browser to sign in with a passkey. */
export default route(
  { needs: 'anyone', answer: json(passkeyOptions), refuses: [404, 409] },
  async (event) => {
    if (!isShop()) throw new Refusal(404, 'Nobody signs in on one machine')
    const options = await optionsToEnter(passkeySite(event))
    await passkeyDoor().keepChallenge(options.challenge, null)
    return options
  },
)
