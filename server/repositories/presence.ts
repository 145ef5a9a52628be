import { Repository } from './actor'

/** A window in which a job is open. */
export interface Present {
  readonly window: string
  readonly person: string
  /** The view of the job that it shows. */
  readonly view: string
}

/** Windows that are silent for longer count as closed, s. They say every 20 s that they are still there. */
const goneAfterS = 50

/** Who has which job open. */
export class Presence extends Repository {
  /** Notes that a window shows a view of a job. Those who look at either job hear it, if it is new. */
  async enter(window: string, job: string, view: string): Promise<void> {
    const { sql, actor } = this
    const { workshop, person } = actor
    const [before] = await sql<{ job: string; person: string; view: string }[]>`
      select job_id as job, person, view from presence
      where workshop_id = ${workshop} and window_id = ${window}
        and seen_at > now() - make_interval(secs => ${goneAfterS})`
    const row = { workshop_id: workshop, window_id: window, job_id: job, person, view }
    await sql`
      insert into presence ${sql(row)}
      on conflict (workshop_id, window_id) do update
        set job_id = excluded.job_id, person = excluded.person, view = excluded.view, seen_at = now()`
    const isNew = before?.job !== job || before.person !== person || before.view !== view
    if (isNew) await this.tell([...new Set([job, ...(before ? [before.job] : [])])])
  }

  /** Notes that a window shows no job any more. */
  async leave(window: string): Promise<void> {
    const left = await this.sql<{ job: string }[]>`
      delete from presence where workshop_id = ${this.actor.workshop} and window_id = ${window} returning job_id as job`
    await this.tell(left.map(({ job }) => job))
  }

  /** Who has a job open, in the order in which they were last seen. */
  here(job: string): Promise<Present[]> {
    return this.sql<Present[]>`
      select window_id as window, person, view from presence
      where workshop_id = ${this.actor.workshop} and job_id = ${job}
        and seen_at > now() - make_interval(secs => ${goneAfterS})
      order by seen_at desc`
  }

  private async tell(jobs: readonly string[]): Promise<void> {
    for (const job of jobs)
      await this.sql`select pg_notify('presence', ${JSON.stringify({ workshop: this.actor.workshop, job })})`
  }
}
