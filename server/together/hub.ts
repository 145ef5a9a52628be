import type { Sql } from 'postgres'
import type { Present } from '../repositories/presence'
import { logProblem } from '../running/log'

/** A window's news of other windows, of this server or another one. */
export type News =
  | {
      readonly kind: 'job'
      readonly job: string
      readonly version: number
      readonly by: string
      readonly isDeleted: boolean
    }
  | { readonly kind: 'presence'; readonly job: string; readonly here: readonly Present[] }
  /** Something may have been missed: everything is to be asked for again. */
  | { readonly kind: 'again' }

type Listener = (news: News) => void

/**
 * Listens to notices of all servers in the database, and passes them to the windows of the same workshop.
 */
export class Hub {
  private readonly listeners = new Map<string, Set<Listener>>()
  private isListening = false

  /**
   * @param sql a connection of its own: it listens as long as the server runs
   * @param hereIn who has a job open
   */
  constructor(
    private readonly sql: Sql,
    private readonly hereIn: (workshop: string, job: string) => Promise<readonly Present[]>,
  ) {}

  /** Begins to listen; the client library listens again after the connection was lost. */
  private listen(): void {
    if (this.isListening) return
    this.isListening = true
    const missed = (): void => {
      for (const workshop of this.listeners.keys()) this.tell(workshop, { kind: 'again' })
    }
    const begin = (channel: string, heard: (payload: string) => void): void => {
      this.sql.listen(channel, heard, missed).catch((cause: unknown) => {
        this.isListening = false
        logProblem('Listening to the database:', cause)
      })
    }
    begin('job', (payload) => {
      const { workshop, ...news } = JSON.parse(payload) as { workshop: string } & Omit<
        News & { kind: 'job' },
        'kind'
      >
      this.tell(workshop, { kind: 'job', ...news })
    })
    begin('presence', (payload) => {
      const { workshop, job } = JSON.parse(payload) as { workshop: string; job: string }
      if (!this.listeners.has(workshop)) return
      this.hereIn(workshop, job)
        .then((here) => {
          this.tell(workshop, { kind: 'presence', job, here })
        })
        .catch(() => undefined)
    })
  }

  private tell(workshop: string, news: News): void {
    for (const listener of this.listeners.get(workshop) ?? []) listener(news)
  }

  /** Tells a listener the news of a workshop, until it is given up by the function that is returned. */
  subscribe(workshop: string, listener: Listener): () => void {
    this.listen()
    const known = this.listeners.get(workshop) ?? new Set()
    this.listeners.set(workshop, known.add(listener))
    return () => {
      known.delete(listener)
      if (known.size === 0) this.listeners.delete(workshop)
    }
  }
}
