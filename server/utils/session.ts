import { deleteCookie, getCookie, getHeader, getRequestIP, setCookie, type H3Event } from 'h3'
import { Entrance, type From, type SignedIn } from '../repositories/entrance'
import { PasskeyDoor } from '../repositories/passkeys'
import { PinDoor } from '../repositories/pins'
import { isEnough, type Role } from '../repositories/actor'
import { siteOf, type Site } from '../people/passkeys'
import { database } from './database'
import { isShop, originAt, servesHttps } from './mode'
import { Refusal } from './refusal'

const cookie = 'jovial-anchor-session'
const browserCookie = 'jovial-anchor-browser'
const longestDevice = 200
const yearS = 365 * 24 * 3600

export const pinDoor = (): PinDoor => new PinDoor(database())
export const passkeyDoor = (): PasskeyDoor => new PasskeyDoor(database())
export const entrance = (): Entrance => new Entrance(database())

const cookieOptions = () => ({
  httpOnly: true,
  sameSite: 'strict' as const,
  secure: servesHttps(),
  path: '/',
})

/** Keeps a session in the browser. It ends with the session on the server, not with the cookie. */
export function keepSession(event: H3Event, token: string): void {
  setCookie(event, cookie, token, { ...cookieOptions(), maxAge: yearS })
}
/** Names a browser that several people share. */
export function keepBrowser(event: H3Event, token: string): void {
  setCookie(event, browserCookie, token, { ...cookieOptions(), maxAge: yearS })
}
/** The name of a browser that several people share; null if it has none. */
export const browserTokenOf = (event: H3Event): string | null => getCookie(event, browserCookie) ?? null
export const dropSession = (event: H3Event): void => {
  deleteCookie(event, cookie, cookieOptions())
}
export const tokenOf = (event: H3Event): string | null => getCookie(event, cookie) ?? null

/** Where a request comes from. Behind a proxy the address is the one that the proxy met. */
export const fromOf = (event: H3Event): From => ({
  address: getRequestIP(event, { xForwardedFor: process.env.ORIGIN !== undefined }) ?? 'unknown',
  device: (getHeader(event, 'user-agent') ?? '').slice(0, longestDevice),
})

/** The site that a page of this server is of; 409 where browsers allow no passkeys. */
export function passkeySite(event: H3Event): Site {
  const site = siteOf(originAt(getHeader(event, 'host') ?? 'localhost'))
  if (!site) throw new Refusal(409, 'Passkeys need an address with a name. Here it is a number.')
  return site
}

const bearer = /^Bearer ([\w-]{20,100})$/

/** The person who is signed in, or the program with a key; null on one machine, or for anybody else. */
export async function signedIn(event: H3Event): Promise<SignedIn | null> {
  if (!isShop()) return null
  const key = bearer.exec(getHeader(event, 'authorization') ?? '')?.[1]
  if (key) return entrance().programOf(key)
  const token = tokenOf(event)
  return token ? entrance().personOf(token) : null
}

const needs: Readonly<Record<Role, string>> = {
  apprentice: 'Sign in first.',
  installer: 'An installer or the owner must do this.',
  owner: 'The owner must do this.',
}

/** The person who is signed in with at least a role. On one machine everybody is the owner, and nobody signs in. */
export async function allowed(event: H3Event, needed: Role): Promise<SignedIn | null> {
  if (!isShop()) return null
  const person = await signedIn(event)
  if (!person) throw new Refusal(401, needs.apprentice)
  if (!isEnough(person.role, needed)) throw new Refusal(403, needs[needed])
  return person
}

/** The person whom the route found; 404 on one machine, where nobody manages people. */
export function personInShop({ context: { person } }: H3Event): SignedIn {
  if (!person) throw new Refusal(404, 'Start with npm start -- --shop to add people')
  return person
}

/** The browser in which a person is signed in. A program has none. */
export function browserOf(event: H3Event): { readonly personId: string; readonly session: string } {
  const { browser } = personInShop(event)
  if (!browser) throw new Refusal(403, 'A program with a key cannot do this')
  return browser
}
