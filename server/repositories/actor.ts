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
  /** Of the data as they stand: it changes when a backup is brought back. */
  readonly epoch: string
}

/** The state of a job or of the shop that was seen: its version, in the epoch of the data that it was read in. */
export interface Seen {
  readonly version: number
  /** Left out by a program that does not outlive a restore. */
  readonly epoch?: string | undefined
}

/** A repository: one kind of data, bound to whoever acts on it. */
export abstract class Repository {
  constructor(
    protected readonly sql: Sql,
    protected readonly actor: Actor,
  ) {}

  /** Whether what was seen is what stands now. */
  protected isCurrent({ version, epoch }: Seen, now: number): boolean {
    return version === now && (epoch === undefined || epoch === this.actor.epoch)
  }

  /** Does something that succeeds as a whole or not at all. */
  protected together<T>(work: (tx: Sql) => Promise<T>): Promise<T> {
    return this.sql.begin((tx) => work(tx as unknown as Sql)) as Promise<T>
  }
}
