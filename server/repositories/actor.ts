import type { Sql } from 'postgres'

/** What a person may do in a workshop. Until there are accounts, everybody is its owner. */
export type Role = 'owner'

/**
 * Whoever reads and writes: everything a repository touches is of this workshop, and is noted under this
 * person.
 */
export interface Actor {
  readonly workshop: string
  readonly person: string
  readonly role: Role
}

/** A repository: one kind of data, bound to whoever acts on it. */
export abstract class Repository {
  constructor(
    protected readonly sql: Sql,
    protected readonly actor: Actor,
  ) {}

  /** Does something that succeeds as a whole or not at all. */
  protected together<T>(work: (tx: Sql) => Promise<T>): Promise<T> {
    return this.sql.begin((tx) => work(tx as unknown as Sql)) as Promise<T>
  }
}
