import type { Sql } from 'postgres'

/** Failed tries stop somebody after this many. */
export interface Limit {
  /** The subject of a counter: a name, an address. */
  readonly key: string
  readonly most: number
}

const waitMin = 15

/** Counts failed tries in the database, so that several servers agree. */
export class Tries {
  constructor(private readonly sql: Sql) {}

  /** Minutes until somebody may try again; 0 now. */
  async minutesToWait(limits: readonly Limit[]): Promise<number> {
    const [row] = await this.sql<{ minutes: number | null }[]>`
      select max(ceil(extract(epoch from since + make_interval(mins => ${waitMin}) - now()) / 60))::int as minutes
      from sign_in_failure
      join unnest(${limits.map(({ key }) => key)}::text[], ${limits.map(({ most }) => most)}::int[])
        as l (key, most) using (key)
      where failures >= most`
    return Math.max(0, row?.minutes ?? 0)
  }

  /** Counts a failure. The count begins again once the wait is over. */
  async note(limits: readonly Limit[]): Promise<void> {
    const keys = limits.map(({ key }) => key)
    await this.sql`
      insert into sign_in_failure as f (key, failures, since)
      select unnest(${keys}::text[]), 1, now()
      on conflict (key) do update set
        failures = case when f.since < now() - make_interval(mins => ${waitMin}) then 1 else f.failures + 1 end,
        since = now()`
  }

  async forget(key: string): Promise<void> {
    await this.sql`delete from sign_in_failure where key = ${key}`
  }
}
