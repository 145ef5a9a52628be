import type { Role } from '../../server/repositories/actor'

export const roleWords: Readonly<Record<Role, string>> = {
  owner: 'Owner',
  installer: 'Installer',
  apprentice: 'Apprentice',
}
/** What a browser is, from how it calls itself: a phone or a computer, and its own name. */
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
