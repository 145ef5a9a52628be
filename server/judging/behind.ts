import type { Sql } from 'postgres'

// The verdict in a list belongs to one version of the job and one of the shop. A job that was handed over keeps its
// verdict, whatever the shop changes later.

/** Whether a row of `job` next to its `workshop` is checked unchanged. */
export const isJudged = (sql: Sql) =>
  sql`(judged_version = job.version and (stage = 'done' or judged_shop = workshop.version))`
