import { asJson, ask, type Answer } from './api'

const numbers = /^(\d{1,3}\.){3}\d{1,3}$|:/
/** Whether this browser can use passkeys at this address: it must have a name, and be trusted. */
export const arePasskeysPossible = (): boolean =>
  window.isSecureContext && 'PublicKeyCredential' in window && !numbers.test(window.location.hostname)

/** A passkey that the browser did not give: closed, refused, or none there. */
const refusedPasskey = (status: number): Answer<never> => ({
  kind: 'refused',
  status,
  refused: { error: 'No passkey was used. Try again, or use the password.' },
})

type Client = typeof import('@simplewebauthn/browser')
type Options = 'startRegistration' | 'startAuthentication'

async function withPasskey<K extends Options>(folder: string, step: K): Promise<Answer<unknown>> {
  const options = await ask<Parameters<Client[K]>[0]['optionsJSON']>(`${folder}/options`, { method: 'POST' })
  if (options.kind !== 'ok') return options
  const client = await import('@simplewebauthn/browser')
  const start = client[step] as (given: { optionsJSON: unknown }) => Promise<object>
  const response = await start({ optionsJSON: options.data }).catch(() => null)
  if (!response) return refusedPasskey(422)
  return ask(folder, asJson('POST', { response }))
}

/** Makes a passkey on this device and adds it to the person's. */
export const addPasskey = (): Promise<Answer<unknown>> =>
  withPasskey('/api/session/passkeys', 'startRegistration')

/** Signs in with a passkey of this device. */
export const enterWithPasskey = (): Promise<Answer<unknown>> =>
  withPasskey('/api/session/passkey', 'startAuthentication')
