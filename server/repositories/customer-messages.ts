import { Repository } from './actor'

/** A message that a customer wrote from their page. */
export interface CustomerMessage {
  readonly id: string
  readonly name: string
  readonly words: string
  readonly at: string
}

/** Messages for one job in a day, at most. */
const mostADay = 20

/** Messages of customers, by job. */
export class CustomerMessages extends Repository {
  /** Messages of a job, newest first. */
  list(job: string): Promise<CustomerMessage[]> {
    return this.sql<CustomerMessage[]>`
      select message_id as id, name, words, at from customer_message
      where workshop_id = ${this.actor.workshop} and job_id = ${job} order by at desc, message_id limit 200`
  }

  /** Adds a message. False if there were too many today. */
  async add(job: string, { name, words }: Pick<CustomerMessage, 'name' | 'words'>): Promise<boolean> {
    const { workshop } = this.actor
    return this.together(async (sql) => {
      // One at a time, so that many at once do not pass the limit together.
      await sql`select pg_advisory_xact_lock(hashtextextended(${`messages ${job}`}, 0))`
      const added = await sql`
        insert into customer_message (workshop_id, job_id, name, words)
        select ${workshop}, ${job}, ${name}, ${words}
        where (
          select count(*) from customer_message
          where workshop_id = ${workshop} and job_id = ${job} and at > now() - interval '1 day'
        ) < ${mostADay}
        returning 1`
      return added.length > 0
    })
  }
}
