import type { JobDocument } from '#core/job/document'
import { Repository } from './actor'

/** Number taken by another job: a save that would give it twice. */
export class NumberTaken extends Error {
  constructor(readonly number: string) {
    super(`Another job has the number ${number}`)
  }
}

/** Turns the database’s error for a number that another job has into {@link NumberTaken}. */
export const orTaken = <T>(work: Promise<T>, { job: { number } }: JobDocument): Promise<T> =>
  work.catch((cause: unknown) => {
    if ((cause as { constraint_name?: string }).constraint_name === 'job_number')
      throw new NumberTaken(number)
    throw cause
  })

/** Most numbers that were given by hand ahead of the counter and are passed over at once. */
const mostSkippedNumbers = 10_000

/** The numbers that a workshop gives its jobs. */
export class JobNumbers extends Repository {
  /** The workshop counts on from a number that was given by hand. */
  async countUpTo(number: string): Promise<void> {
    if (!/^\d{1,8}$/.test(number)) return
    await this.sql`
      update workshop set last_number = ${Number(number)}
      where workshop_id = ${this.actor.workshop} and last_number < ${Number(number)}`
  }

  /** The next number of the workshop that no job has, four digits at least. */
  async next(): Promise<string> {
    const { workshop } = this.actor
    for (let tries = 0; tries < mostSkippedNumbers; tries++) {
      const [row] = await this.sql<{ number: number }[]>`
        update workshop set last_number = last_number + 1 where workshop_id = ${workshop} returning last_number as number`
      const number = String(row!.number).padStart(4, '0')
      const [taken] = await this.sql`select 1 from job where workshop_id = ${workshop} and number = ${number}`
      if (!taken) return number
    }
    throw new Error('There is no free number')
  }
}
