import { defineEventHandler, getHeader, setResponseHeaders, setResponseStatus } from 'h3'
import { isShop, originAt, ownHosts } from './mode'

const portAtEnd = /:\d+$/
/** Whether a host, with or without its port, is a name of this server. */
const isOwnHost = (host: string): boolean => {
  const origin = process.env.ORIGIN
  if (isShop() && origin !== undefined && host === new URL(origin).host) return true
  return ownHosts().includes(host.replace(portAtEnd, ''))
}

/**
 * The content policy of a page: only resources from here, and only inline scripts with a listed digest.
 * @param digests SHA-256 of each, in base 64
 */
export const contentPolicy = (digests: readonly string[] = []): string =>
  [
    "default-src 'self'",
    "img-src 'self' data: blob:",
    "style-src 'self' 'unsafe-inline'",
    // The recogniser of labels is WebAssembly.
    ["script-src 'self' 'wasm-unsafe-eval'", ...digests.map((digest) => `'sha256-${digest}'`)].join(' '),
    "object-src 'none'",
    "frame-ancestors 'none'",
    "base-uri 'self'",
    "form-action 'self'",
  ].join('; ')

/**
 * A request under a host name that is not of this server, or sent by a page of another site, is refused before
 * anything else sees it.
 */
export const guard = defineEventHandler((event) => {
  setResponseHeaders(event, {
    'x-content-type-options': 'nosniff',
    'referrer-policy': 'no-referrer',
    'cross-origin-opener-policy': 'same-origin',
    'cross-origin-resource-policy': 'same-origin',
    'permissions-policy': 'camera=(self), geolocation=(), microphone=(), payment=(), usb=()',
    // A customer's requests are not cached on the way.
    ...(event.path.startsWith('/api/') ? { 'cache-control': 'no-store' } : {}),
    'content-security-policy': contentPolicy(),
  })
  // Two of them would be read as one name here and as another elsewhere.
  if (
    event.node.req.rawHeaders.filter((word, i) => i % 2 === 0 && word.toLowerCase() === 'host').length > 1
  ) {
    setResponseStatus(event, 400)
    return { error: 'The request has two Host headers' }
  }
  const host = getHeader(event, 'host') ?? ''
  const origin = getHeader(event, 'origin')
  const site = getHeader(event, 'sec-fetch-site')
  // A link from elsewhere may open a page; nothing else may be asked for from there.
  const isPage = event.method === 'GET' && getHeader(event, 'sec-fetch-mode') === 'navigate'
  const isFromElsewhere = (site === 'cross-site' || site === 'same-site') && !isPage
  if (!isOwnHost(host) || (origin !== undefined && origin !== originAt(host)) || isFromElsewhere) {
    setResponseStatus(event, 403)
    return { error: 'This server answers only its own pages' }
  }
})
