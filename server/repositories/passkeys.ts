import type { Sql } from 'postgres'
import { Repository } from './actor'
import { openSession, type From } from './entrance'

/** A passkey, as its owner sees it. */
export interface PasskeyRow {
  readonly id: string
  readonly device: string
  readonly createdAt: string
  readonly usedAt: string | null
}
export interface NewPasskey {
  readonly id: string
  readonly publicKey: Uint8Array
  readonly counter: number
  readonly transports: readonly string[]
}
/** A passkey, for comparison with a browser's message. */
export interface KnownPasskey extends NewPasskey {
  readonly workshop: string
  readonly person: string
}

const challengeMin = 5

/** The passkeys of a person who is signed in. */
export class Passkeys extends Repository {
  async list(person: string): Promise<readonly PasskeyRow[]> {
    return this.sql<PasskeyRow[]>`
      select passkey_id as id, device, created_at as "createdAt", used_at as "usedAt" from passkey
      where workshop_id = ${this.actor.workshop} and person_id = ${person} order by created_at`
  }

  /** Adds a passkey. False if it is known already. */
  async add(
    person: string,
    device: string,
    { id, publicKey, counter, transports }: NewPasskey,
  ): Promise<boolean> {
    const added = await this.sql`
      insert into passkey (passkey_id, workshop_id, person_id, public_key, counter, transports, device)
      values (${id}, ${this.actor.workshop}, ${person}, ${Buffer.from(publicKey)}, ${counter},
        ${transports as string[]}, ${device})
      on conflict do nothing returning 1`
    return added.length > 0
  }

  /** Removes a passkey of a person. False if they have none such. */
  async remove(person: string, id: string): Promise<boolean> {
    const removed = await this.sql`
      delete from passkey
      where workshop_id = ${this.actor.workshop} and person_id = ${person} and passkey_id = ${id} returning 1`
    return removed.length > 0
  }
}

/** Looks up passkeys before it is known who signs in. */
export class PasskeyDoor {
  constructor(private readonly sql: Sql) {}

  /** Keeps a challenge for a few minutes. @param person who adds a passkey; null for one who signs in */
  async keepChallenge(challenge: string, person: string | null): Promise<void> {
    await this.sql`delete from passkey_challenge where ends_at < now()`
    await this.sql`
      insert into passkey_challenge (challenge, person_id, ends_at)
      values (${challenge}, ${person}, now() + make_interval(mins => ${challengeMin}))`
  }

  /** Uses a challenge up. False if it is unknown, used or too old, or was given to somebody else. */
  async useChallenge(challenge: string, person: string | null): Promise<boolean> {
    const used = await this.sql`
      delete from passkey_challenge
      where challenge = ${challenge} and person_id is not distinct from ${person}::uuid and ends_at > now()
      returning 1`
    return used.length > 0
  }

  /** A passkey and its person; null if it is unknown or its person was removed. */
  async find(id: string): Promise<KnownPasskey | null> {
    const [found] = await this.sql<KnownPasskey[]>`
      select k.passkey_id as id, k.public_key as "publicKey", k.counter::float8 as counter, k.transports,
        k.workshop_id as workshop, k.person_id as person
      from passkey k join person p using (workshop_id, person_id)
      where k.passkey_id = ${id} and p.ended_at is null`
    return found ?? null
  }

  /** Signs the owner of a passkey in. @param counter how often the passkey says that it was used */
  async enter({ id, workshop, person }: KnownPasskey, counter: number, from: From): Promise<string> {
    await this.sql`update passkey set counter = ${counter}, used_at = now() where passkey_id = ${id}`
    return openSession(this.sql, { workshop, person }, from)
  }
}
