import type { Sql } from 'postgres'

/**
 * Roles of a person in a workshop, from least to most rights. On one machine without accounts, everybody is its
 * owner.
 */
export const roles = ['apprentice', 'installer', 'owner'] as const
export type Role = (typeof roles)[number]

/** Whether a role is enough for something that needs another. */
export const isEnough = (role: Role, needed: Role): boolean => roles.indexOf(role) >= roles.indexOf(needed)

/** Who reads and writes: a repository touches only data of this workshop, and notes changes under this person. */
export interface Actor {
  readonly workshop: string
  readonly person: string
  readonly role: Role
  /** Of the data now: it changes when a backup is restored. */
  readonly epoch: string
}

/** The state of a job or of the shop that was seen: its version, in the epoch of the data that it was read in. */
export interface Seen {
  readonly version: number
  /** Left out by a program that does not outlive a restore. */
  readonly epoch?: string | undefined
}

/** A repository: one kind of data, bound to one actor. */
export abstract class Repository {
  constructor(
    protected readonly sql: Sql,
    protected readonly actor: Actor,
  ) {}

  /** Whether the seen version is the current one. */
  protected isCurrent({ version, epoch }: Seen, now: number): boolean {
    return version === now && (epoch === undefined || epoch === this.actor.epoch)
  }

  /** Does something that succeeds as a whole or not at all. */
  protected together<T>(work: (tx: Sql) => Promise<T>): Promise<T> {
    return this.sql.begin((tx) => work(tx as unknown as Sql)) as Promise<T>
  }
}
