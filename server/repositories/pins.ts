import type { Sql } from 'postgres'
import { hashOfPassword, hashOfToken, isPassword, newToken } from '../people/secrets'
import { Repository } from './actor'
import { openSession, type From } from './entrance'

/** Wrong tries after which a PIN is gone. */
const mostTries = 5

type PinTry =
  | { readonly kind: 'in'; readonly token: string }
  | { readonly kind: 'wrong'; readonly left: number }
  | { readonly kind: 'gone' }

/** The PINs of a person who is signed in. */
export class Pins extends Repository {
  /**
   * Sets the person's PIN in a browser.
   * @param browser the token of the browser; null if it has none yet
   * @returns the token of the browser
   */
  async set(person: string, session: string, pin: string, browser: string | null): Promise<string> {
    const token = browser ?? newToken()
    const { workshop } = this.actor
    const row = {
      browser_hash: hashOfToken(token),
      workshop_id: workshop,
      person_id: person,
      hash: await hashOfPassword(pin),
    }
    await this.together(async (sql) => {
      await sql`
        insert into pin ${sql(row)}
        on conflict (browser_hash, person_id) do update set hash = excluded.hash, failures = 0, created_at = now()`
      await sql`
        update session set browser_hash = ${row.browser_hash}
        where workshop_id = ${workshop} and person_id = ${person} and session_id = ${session}`
    })
    return token
  }

  /** Takes the person's PIN out of a browser. */
  async remove(person: string, browser: string): Promise<void> {
    await this.sql`
      delete from pin where workshop_id = ${this.actor.workshop} and person_id = ${person}
        and browser_hash = ${hashOfToken(browser)}`
  }
}

/** The door of a browser that several people share. */
export class PinDoor {
  constructor(private readonly sql: Sql) {}

  /** Who may come in to a browser with a PIN, by name. */
  async people(browser: string): Promise<readonly { readonly id: string; readonly name: string }[]> {
    return this.sql<{ id: string; name: string }[]>`
      select p.person_id as id, p.name from pin join person p using (workshop_id, person_id)
      where pin.browser_hash = ${hashOfToken(browser)} and p.ended_at is null order by p.name`
  }

  /** Signs a person in to a browser by PIN; after the fifth wrong one in a row the PIN is gone. */
  async enter(browser: string, person: string, pin: string, from: From): Promise<PinTry> {
    const hash = hashOfToken(browser)
    // Counted before it is compared, so that many tries at once are no more than many in a row.
    const [tried] = await this.sql<{ workshop: string; hash: string; failures: number }[]>`
      update pin set failures = failures + 1 from person p
      where pin.browser_hash = ${hash} and pin.person_id = ${person} and pin.failures < ${mostTries}
        and p.person_id = pin.person_id and p.ended_at is null
      returning pin.workshop_id as workshop, pin.hash, pin.failures`
    if (!(await isPassword(pin, tried?.hash ?? null)) || !tried) {
      const left = tried ? mostTries - tried.failures : 0
      if (left > 0) return { kind: 'wrong', left }
      await this
        .sql`delete from pin where browser_hash = ${hash} and person_id = ${person} and failures >= ${mostTries}`
      return { kind: 'gone' }
    }
    await this.sql`update pin set failures = 0 where browser_hash = ${hash} and person_id = ${person}`
    return {
      kind: 'in',
      token: await openSession(this.sql, { workshop: tried.workshop, person }, from, hash),
    }
  }
}
