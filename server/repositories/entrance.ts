import type { Sql } from 'postgres'
import { hashOfPassword, hashOfToken, isPassword, newToken } from '../people/secrets'
import type { Actor, Role } from './actor'
import { Tries } from './tries'

/** A person who is signed in, in one browser; or a program with a key. */
export interface SignedIn extends Actor {
  /** Null for a program. */
  readonly browser: { readonly personId: string; readonly session: string } | null
}

/** Where a try to sign in comes from. */
export interface From {
  readonly address: string
  /** The browser's own name. */
  readonly device: string
}

type SignIn =
  | { readonly kind: 'in'; readonly token: string }
  | { readonly kind: 'wrong' }
  | { readonly kind: 'wait'; readonly minutes: number }

/** A session ends after this long without use. */
const sessionDays = 30
/** How often the last use of a session is noted. */
const notedEveryMin = 5
/** Failed tries for one name, and from one address, before both wait. */
const mostForName = 5
const mostForAddress = 20

/** The door of the workshop: actions before signing in. */
export class Entrance {
  constructor(private readonly sql: Sql) {}

  /** The person of a session's token; null if there is no such session or it has ended. */
  async personOf(token: string): Promise<SignedIn | null> {
    const [found] = await this.sql<(Actor & { personId: string; session: string; isStale: boolean })[]>`
      select w.workshop_id as workshop, w.epoch, p.name as person, p.role, p.person_id as "personId",
        s.session_id as session, s.seen_at < now() - make_interval(mins => ${notedEveryMin}) as "isStale"
      from session s join person p using (workshop_id, person_id) join workshop w using (workshop_id)
      where s.token_hash = ${hashOfToken(token)} and s.ends_at > now() and p.ended_at is null`
    if (!found) return null
    const { isStale, personId, session, ...actor } = found
    if (isStale)
      await this
        .sql`update session set seen_at = now(), ends_at = now() + make_interval(days => ${sessionDays})
        where session_id = ${session}`
    return { ...actor, browser: { personId, session } }
  }

  /** The actor of a program's key; null if there is no such key or it has ended. */
  async programOf(token: string): Promise<SignedIn | null> {
    const [found] = await this.sql<(Actor & { id: string; isStale: boolean })[]>`
      select w.workshop_id as workshop, w.epoch, t.name as person, t.role, t.token_id as id,
        coalesce(t.used_at < now() - make_interval(mins => ${notedEveryMin}), true) as "isStale"
      from api_token t join workshop w using (workshop_id)
      where t.token_hash = ${hashOfToken(token)} and t.ends_at > now()`
    if (!found) return null
    const { isStale, id, ...actor } = found
    if (isStale) await this.sql`update api_token set used_at = now() where token_id = ${id}`
    return { ...actor, browser: null }
  }

  /** Whether anybody has an account yet. */
  async hasPeople(): Promise<boolean> {
    const found = await this.sql`select 1 from person where password is not null limit 1`
    return found.length > 0
  }

  /** Makes the first owner; null if somebody has an account already. */
  async begin(name: string, password: string, from: From): Promise<string | null> {
    const hash = await hashOfPassword(password)
    return this.sql.begin(async (transaction) => {
      const tx = transaction as unknown as Sql
      // Two who begin at once take turns.
      const [workshop] = await tx<{ id: string }[]>`
        select workshop_id as id from workshop order by created_at limit 1 for update`
      if (!workshop || (await new Entrance(tx).hasPeople())) return null
      const [person] = await tx<{ id: string }[]>`
        insert into person (workshop_id, name, role, password) values (${workshop.id}, ${name}, 'owner', ${hash})
        returning person_id as id`
      return openSession(tx, { workshop: workshop.id, person: person!.id }, from)
    })
  }

  /** Signs a person in by name and password. */
  async signIn(name: string, password: string, from: From): Promise<SignIn> {
    const tries = new Tries(this.sql)
    const ofName = { key: `name ${name.toLowerCase()}`, most: mostForName }
    const limits = [ofName, { key: `address ${from.address}`, most: mostForAddress }]
    const minutes = await tries.minutesToWait(limits)
    if (minutes > 0) return { kind: 'wait', minutes }
    const [person] = await this.sql<{ workshop: string; id: string; password: string | null }[]>`
      select workshop_id as workshop, person_id as id, password from person
      where lower(name) = lower(${name}) and ended_at is null order by created_at limit 1`
    if (!(await isPassword(password, person?.password ?? null)) || !person) {
      await tries.note(limits)
      return { kind: 'wrong' }
    }
    await tries.forget(ofName.key)
    return {
      kind: 'in',
      token: await openSession(this.sql, { workshop: person.workshop, person: person.id }, from),
    }
  }

  async signOut(token: string): Promise<void> {
    await this.sql`delete from session where token_hash = ${hashOfToken(token)}`
  }

  /** Who an invitation is for; null if it is unknown, used or too old. */
  async invited(
    token: string,
  ): Promise<{ readonly name: string; readonly role: Role; readonly isNew: boolean } | null> {
    const [found] = await this.sql<{ name: string; role: Role; isNew: boolean }[]>`
      select p.name, p.role, p.password is null as "isNew"
      from invitation i join person p using (workshop_id, person_id)
      where i.token_hash = ${hashOfToken(token)} and i.used_at is null and i.ends_at > now() and p.ended_at is null`
    return found ?? null
  }

  /**
   * Sets the password of the invited person and signs them in. Their other sessions, PINs and passkeys end. Null if
   * it is not valid.
   */
  async join(token: string, password: string, from: From): Promise<string | null> {
    const hash = await hashOfPassword(password)
    return this.sql.begin(async (transaction) => {
      const tx = transaction as unknown as Sql
      const [used] = await tx<{ workshop: string; person: string }[]>`
        update invitation i set used_at = now() from person p
        where i.token_hash = ${hashOfToken(token)} and i.used_at is null and i.ends_at > now()
          and p.person_id = i.person_id and p.ended_at is null
        returning i.workshop_id as workshop, i.person_id as person`
      if (!used) return null
      await tx`update person set password = ${hash} where person_id = ${used.person}`
      await tx`delete from session where person_id = ${used.person}`
      await tx`delete from pin where person_id = ${used.person}`
      await tx`delete from passkey where person_id = ${used.person}`
      return openSession(tx, used, from)
    })
  }
}

/**
 * Begins a session of a person.
 * @param browserHash of the token of a browser that several people share
 * @returns the token of the session
 */
export async function openSession(
  sql: Sql,
  { workshop, person }: { readonly workshop: string; readonly person: string },
  { device }: From,
  browserHash: Buffer | null = null,
): Promise<string> {
  const token = newToken()
  await sql`
    insert into session (token_hash, workshop_id, person_id, device, browser_hash, ends_at)
    values (${hashOfToken(token)}, ${workshop}, ${person}, ${device}, ${browserHash},
      now() + make_interval(days => ${sessionDays}))`
  return token
}
