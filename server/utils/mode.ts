/** Whether the server is for a shop: several people and devices, each person signed in. */
export const isShop = (): boolean => process.env.SHOP_MODE === 'yes'

/** Whether browsers reach the server by HTTPS: from itself, or from the proxy that `ORIGIN` names. */
export const servesHttps = (): boolean =>
  isShop() && (process.env.NITRO_SSL_CERT !== undefined || process.env.ORIGIN !== undefined)

/** The origin of pages of this server under a host. */
export const originAt = (host: string): string => `${servesHttps() ? 'https' : 'http'}://${host}`

/** Names and addresses under which pages may ask, without a port. */
export const ownHosts = (): readonly string[] => [
  '127.0.0.1',
  'localhost',
  '[::1]',
  ...(isShop() ? (process.env.SHOP_HOSTS ?? '').split(',').filter((host) => host !== '') : []),
]

/** The file that makes the next start one for a shop; undefined if this server was not started by `npm start`. */
export const shopSwitch = (): string | undefined => process.env.SHOP_SWITCH
