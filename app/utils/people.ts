import type { Role } from '../../server/repositories/actor'

/** The roles in words, from the least to the one that may do most. */
export const roleWords: Readonly<Record<Role, string>> = {
  apprentice: 'Apprentice',
  installer: 'Installer',
  owner: 'Owner',
}
export const roles = Object.keys(roleWords) as readonly Role[]

/** The kind of a browser, from its own name: a phone or a computer. */
export function deviceWords(agent: string): string {
  const kind = /mobile|android|iphone/i.test(agent)
    ? 'Phone'
    : /ipad|tablet/i.test(agent)
      ? 'Tablet'
      : 'Computer'
  const browser = /(firefox|edg|opr|chrome|safari)(?=\/)/i.exec(agent)?.[1]
  const names: Readonly<Record<string, string>> = { edg: 'Edge', opr: 'Opera' }
  return browser ? `${kind}, ${names[browser.toLowerCase()] ?? browser}` : kind
}

/** Words for an apprentice where an installer must decide. */
export const needsInstaller = 'An installer or the owner must do this.'
