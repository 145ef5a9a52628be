import {
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
  type AuthenticationResponseJSON,
  type RegistrationResponseJSON,
} from '@simplewebauthn/server'
import type { KnownPasskey, NewPasskey, PasskeyRow } from '../repositories/passkeys'

/** The name under which browsers keep passkeys of this server, and the origin of its pages. */
export interface Site {
  readonly name: string
  readonly origin: string
}
/** Takes a challenge as used. False if it may not be used. */
type UseChallenge = (challenge: string) => Promise<boolean>

const numbers = /^(\d{1,3}\.){3}\d{1,3}$|^\[/

/** The site of a page; null where its address is a number, which browsers allow no passkeys for. */
export function siteOf(origin: string): Site | null {
  const { hostname } = new URL(origin)
  return numbers.test(hostname) ? null : { name: hostname, origin }
}

/** Options for a browser to make a passkey for a person. */
export const optionsToAdd = (
  { name }: Site,
  person: { readonly id: string; readonly name: string },
  existing: readonly PasskeyRow[],
) =>
  generateRegistrationOptions({
    rpName: 'Jovial Anchor',
    rpID: name,
    userName: person.name,
    userID: new TextEncoder().encode(person.id),
    attestationType: 'none',
    excludeCredentials: existing.map(({ id }) => ({ id })),
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  })

/** Options for a browser to sign in with any of its passkeys. */
export const optionsToEnter = ({ name }: Site) =>
  generateAuthenticationOptions({ rpID: name, userVerification: 'required' })

/** The passkey that a browser has made; null if its message is invalid. */
export async function checkNew(
  site: Site,
  response: RegistrationResponseJSON,
  use: UseChallenge,
): Promise<NewPasskey | null> {
  const checked = await verifyRegistrationResponse({
    response,
    expectedChallenge: use,
    expectedOrigin: site.origin,
    expectedRPID: site.name,
  }).catch(() => null)
  if (!checked?.verified) return null
  const { id, publicKey, counter } = checked.registrationInfo.credential
  return { id, publicKey, counter, transports: response.response.transports ?? [] }
}

/** How often a passkey was used, by the message of a browser; null if the message is invalid. */
export async function checkKnown(
  site: Site,
  response: AuthenticationResponseJSON,
  { id, publicKey, counter }: KnownPasskey,
  use: UseChallenge,
): Promise<number | null> {
  const checked = await verifyAuthenticationResponse({
    response,
    expectedChallenge: use,
    expectedOrigin: site.origin,
    expectedRPID: site.name,
    credential: { id, publicKey: new Uint8Array(publicKey), counter },
  }).catch(() => null)
  return checked?.verified ? checked.authenticationInfo.newCounter : null
}
