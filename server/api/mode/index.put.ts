import { rm, writeFile } from 'node:fs/promises'
import Joi from 'joi'
import { isShop, shopSwitch } from '../../utils/mode'
import { Refusal } from '../../utils/refusal'
import { modes } from '../../answers/shop'
import { json, jsonBody, route } from '../../utils/route'

const body = Joi.object<{ shop: boolean }>({ shop: Joi.boolean().strict().required() })

/** Chooses whether the next start is for a shop. */
export default route(
  { needs: 'owner', body: jsonBody(body), answer: json(modes), refuses: [409] },
  async (event, { body: { shop } }) => {
    const file = shopSwitch()
    if (!file)
      throw new Refusal(409, 'This server was not started by npm start. Set its mode where it is started')
    if (shop) await writeFile(file, 'The next npm start serves a shop.\n')
    else await rm(file, { force: true })
    return { shop: isShop(), next: shop }
  },
)
