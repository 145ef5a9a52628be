import type { Sql } from 'postgres'
import { keptDays } from '../repositories/jobs'

/** A clock that has leapt this far since the last look may be wrong; it is believed once it has gone on this long. */
const leap = '3 days'
const believedAfter = '2 days'

/** Days that a device may be away and still be told which of its changes arrived. */
const rememberedDays = 120

/** Whether the clock may be believed: nothing goes for good because it was set wrong for a day. */
async function isClockSound(sql: Sql): Promise<boolean> {
  const [row] = await sql<{ sound: boolean }[]>`
    with looked as (
      update workshop set looked_at = now(), clock_since = case
        when looked_at between now() - ${leap}::interval and now() + ${leap}::interval then least(clock_since, now())
        else now() end
      returning clock_since)
    select bool_and(clock_since <= now() - ${believedAfter}::interval) as sound from looked`
  return row?.sound ?? false
}

/**
 * Finally removes jobs that were deleted long enough ago, with history and photos. If a job has issued papers, they
 * stay, as the law requires, and so does the job; its photos go.
 * @returns number of removed jobs
 */
export async function purge(sql: Sql): Promise<number> {
  return sql.begin(async (transaction) => {
    const tx = transaction as unknown as Sql
    if (!(await isClockSound(tx))) return 0
    const due = tx`deleted_at < now() - ${keptDays} * interval '1 day'`
    await tx`delete from job_change where at < now() - ${rememberedDays} * interval '1 day'`
    await tx`
      delete from photo using job
      where photo.workshop_id = job.workshop_id and photo.job_id = job.job_id and ${due}`
    const gone = await tx`
      delete from job where ${due} and not exists (
        select 1 from sheet where sheet.workshop_id = job.workshop_id and sheet.job_id = job.job_id)
      returning job_id`
    return gone.length
  }) as Promise<number>
}
