import type { Sql } from 'postgres'
import { keptDays } from '../repositories/jobs'

/**
 * Takes away for good what was deleted long enough ago: the job with its history and photos. Of a job that has
 * issued papers these stay, as the law asks, and with them the job they are of; its photos go.
 * @returns how many jobs went
 */
export async function purge(sql: Sql): Promise<number> {
  return sql.begin(async (transaction) => {
    const tx = transaction as unknown as Sql
    const due = tx`deleted_at < now() - ${keptDays} * interval '1 day'`
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
