import { hashOfToken, newToken } from '../people/secrets'
import { Repository, type Role } from './actor'

/** The key of a program, as its owner sees it. */
export interface TokenRow {
  readonly id: string
  readonly name: string
  readonly role: Role
  readonly createdAt: string
  readonly createdBy: string
  readonly endsAt: string
  readonly usedAt: string | null
}
export interface NewToken extends Pick<TokenRow, 'name' | 'role'> {
  readonly days: number
}

/** Keys of programs that use the application’s routes. Only the hash of a key is kept. */
export class Tokens extends Repository {
  list(): Promise<TokenRow[]> {
    return this.sql<TokenRow[]>`
      select token_id as id, name, role, created_at as "createdAt", created_by as "createdBy", ends_at as "endsAt",
        used_at as "usedAt"
      from api_token where workshop_id = ${this.actor.workshop} and ends_at > now() order by created_at`
  }

  /** Makes a key. The key itself is shown once. */
  async make({ name, role, days }: NewToken): Promise<{ readonly id: string; readonly token: string }> {
    const token = newToken()
    const { workshop, person } = this.actor
    const [made] = await this.sql<{ id: string }[]>`
      insert into api_token (workshop_id, token_hash, name, role, created_by, ends_at)
      values (${workshop}, ${hashOfToken(token)}, ${name}, ${role}, ${person}, now() + make_interval(days => ${days}))
      returning token_id as id`
    return { id: made!.id, token }
  }

  /** Ends a key. False if there is no such key. */
  async revoke(id: string): Promise<boolean> {
    const ended = await this.sql`
      delete from api_token where workshop_id = ${this.actor.workshop} and token_id = ${id} returning token_id`
    return ended.length > 0
  }
}
