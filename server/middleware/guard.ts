import { defineEventHandler, getHeader, setResponseHeaders, setResponseStatus } from 'h3'

const ownHosts = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/

/**
 * Until accounts exist the server is for this machine alone. A request under another host name, or
 * sent by a page of another site, is refused before anything else sees it.
 */
export default defineEventHandler((event) => {
  setResponseHeaders(event, {
    'x-content-type-options': 'nosniff',
    'referrer-policy': 'no-referrer',
    'content-security-policy':
      "default-src 'self'; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline'; script-src 'self' 'unsafe-inline'; frame-ancestors 'none'; base-uri 'self'; form-action 'self'",
  })
  const host = getHeader(event, 'host') ?? ''
  const origin = getHeader(event, 'origin')
  if (!ownHosts.test(host) || (origin !== undefined && origin !== `http://${host}`)) {
    setResponseStatus(event, 403)
    return { error: 'This server answers only to pages of its own' }
  }
})
