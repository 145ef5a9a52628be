import { readFile } from 'node:fs/promises'
import { setResponseHeaders } from 'h3'
import { Refusal } from '../utils/refusal'
import { media, route } from '../utils/route'

/** The certificate of the shop's own authority, for a phone to trust. It is no secret. */
export default route(
  { needs: 'anyone', answer: media('application/x-x509-ca-cert'), refuses: [404] },
  async (event) => {
    const file = process.env.SHOP_AUTHORITY
    if (!file) throw new Refusal(404, 'This server has no certificate authority')
    setResponseHeaders(event, {
      'content-type': 'application/x-x509-ca-cert',
      'content-disposition': 'attachment; filename="jovial-anchor-authority.crt"',
    })
    return readFile(file, 'utf8')
  },
)
