import { hashOfToken, newToken } from '../people/secrets'
import { Repository, type Role } from './actor'

export interface PersonRow {
  readonly id: string
  readonly name: string
  readonly role: Role
  /** Whether they have set their password. */
  readonly hasJoined: boolean
  readonly sessions: number
  readonly seenAt: string | null
}

export interface PastName {
  readonly name: string
  readonly lastAt: string
}

export interface SessionRow {
  readonly id: string
  readonly device: string
  readonly createdAt: string
  readonly seenAt: string
}

/** A link to hand over. The token is shown once, and only its hash is stored. */
interface Invitation {
  readonly token: string
  readonly days: number
}

const invitationDays = 7

/** The people of the workshop and the browsers in which they are signed in. */
export class People extends Repository {
  private get workshop(): string {
    return this.actor.workshop
  }

  async list(): Promise<readonly PersonRow[]> {
    return this.sql<PersonRow[]>`
      select p.person_id as id, p.name, p.role, p.password is not null as "hasJoined",
        count(s.session_id)::int as sessions, max(s.seen_at) as "seenAt"
      from person p left join session s on s.person_id = p.person_id and s.ends_at > now()
      where p.workshop_id = ${this.workshop} and p.ended_at is null
      group by p.person_id, p.name, p.role, p.password, p.created_at order by p.created_at`
  }

  /** Names under which devices made changes before people signed in, and when last. */
  pastNames(): Promise<readonly PastName[]> {
    return this.sql<PastName[]>`
      select who as name, max(at) as "lastAt" from (
        select who, at from job_history where workshop_id = ${this.workshop}
        union all select issued_by, issued_at from sheet where workshop_id = ${this.workshop}
        union all select taken_by, taken_at from photo where workshop_id = ${this.workshop}) as signed
      where not exists (
        select 1 from person where workshop_id = ${this.workshop} and lower(person.name) = lower(who))
        and not exists (
          select 1 from api_token where workshop_id = ${this.workshop} and lower(api_token.name) = lower(who))
      group by who order by 2 desc, 1`
  }

  /** Invites a person; null if somebody has that name. */
  async invite(name: string, role: Role): Promise<(Invitation & { readonly id: string }) | null> {
    return this.together(async (sql) => {
      const [person] = await sql<{ id: string }[]>`
        insert into person (workshop_id, name, role) values (${this.workshop}, ${name}, ${role})
        on conflict (workshop_id, lower(name)) where ended_at is null do nothing
        returning person_id as id`
      return person ? { id: person.id, ...(await new People(sql, this.actor).link(person.id)) } : null
    })
  }

  /**
   * A new link for a person who has lost theirs or their password; earlier links end. Null if there is no such
   * person.
   */
  async linkAgain(id: string): Promise<Invitation | null> {
    return this.together(async (sql) => {
      const [person] = await sql`
        select 1 from person where workshop_id = ${this.workshop} and person_id = ${id} and ended_at is null for update`
      if (!person) return null
      await sql`update invitation set ends_at = now() where person_id = ${id} and used_at is null and ends_at > now()`
      return new People(sql, this.actor).link(id)
    })
  }

  private async link(person: string): Promise<Invitation> {
    const token = newToken()
    await this.sql`
      insert into invitation (token_hash, workshop_id, person_id, ends_at)
      values (${hashOfToken(token)}, ${this.workshop}, ${person}, now() + make_interval(days => ${invitationDays}))`
    return { token, days: invitationDays }
  }

  /** Changes the role of a person. The last owner stays owner. */
  async setRole(id: string, role: Role): Promise<'done' | 'gone' | 'last-owner'> {
    return this.changing(id, role !== 'owner', async (people) => {
      await people.sql`
        update person set role = ${role} where workshop_id = ${this.workshop} and person_id = ${id}`
    })
  }

  /** Removes a person. Their sessions end; their changes keep their name. */
  async end(id: string): Promise<'done' | 'gone' | 'last-owner'> {
    return this.changing(id, true, async (people) => {
      await people.sql`
        update person set ended_at = now() where workshop_id = ${this.workshop} and person_id = ${id}`
      await people.endSessions(id)
      await people.sql`delete from passkey where workshop_id = ${this.workshop} and person_id = ${id}`
    })
  }

  private async changing(
    id: string,
    stopsOwning: boolean,
    change: (people: People) => Promise<void>,
  ): Promise<'done' | 'gone' | 'last-owner'> {
    return this.together(async (sql) => {
      const owners = await sql<{ id: string }[]>`
        select person_id as id from person
        where workshop_id = ${this.workshop} and role = 'owner' and ended_at is null and password is not null
        order by person_id for update`
      const people = new People(sql, this.actor)
      if (!(await people.has(id))) return 'gone'
      if (stopsOwning && owners.length === 1 && owners.some((owner) => owner.id === id)) return 'last-owner'
      await change(people)
      return 'done'
    })
  }

  async has(id: string): Promise<boolean> {
    const found = await this.sql`
      select 1 from person where workshop_id = ${this.workshop} and person_id = ${id} and ended_at is null`
    return found.length > 0
  }

  /** Where a person is signed in, the last used first. */
  async sessions(person: string): Promise<readonly SessionRow[]> {
    return this.sql<SessionRow[]>`
      select session_id as id, device, created_at as "createdAt", seen_at as "seenAt" from session
      where workshop_id = ${this.workshop} and person_id = ${person} and ends_at > now()
      order by seen_at desc, session_id`
  }

  /** Ends sessions of a person: one of them, or all. Their PINs in those browsers go too. Returns how many ended. */
  async endSessions(person: string, session: string | null = null): Promise<number> {
    const [row] = await this.sql<{ count: number }[]>`
      with ended as (
        delete from session where workshop_id = ${this.workshop} and person_id = ${person}
          and (${session}::uuid is null or session_id = ${session}::uuid)
        returning browser_hash),
      forgotten as (
        delete from pin where workshop_id = ${this.workshop} and person_id = ${person}
          and (${session}::uuid is null or browser_hash in (select browser_hash from ended)))
      select count(*)::int as count from ended`
    return row?.count ?? 0
  }
}
