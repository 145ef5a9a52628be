import { passkeyOptions } from '../../../answers/people'
import { optionsToAdd } from '../../../people/passkeys'
import { repositories } from '../../../utils/database'
import { json, route } from '../../../utils/route'
import { browserOf, passkeyDoor, passkeySite, personInShop } from '../../../utils/session'

/** Options for a browser to make a passkey for the person. */
export default route(
  { needs: 'apprentice', answer: json(passkeyOptions), refuses: [403, 404, 409] },
  async (event) => {
    const { personId } = browserOf(event)
    const site = passkeySite(event)
    const { passkeys } = await repositories(event)
    const person = { id: personId, name: personInShop(event).person }
    const options = await optionsToAdd(site, person, await passkeys.list(personId))
    await passkeyDoor().keepChallenge(options.challenge, personId)
    return options
  },
)
