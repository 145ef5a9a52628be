import type { Sql } from 'postgres'
import type { RuleOverrides } from '#core/rules/rules'
import { documentOf } from '../repositories/kept-document'
import { TooLarge, type Judge } from './judge'
import type { ListVerdict } from './work'
import { logProblem } from '../running/log'

/** Jobs that are fetched at once to be checked. */
const batch = 8
/** A job that was saved is checked once no save follows for this long, ms … */
const restedMs = 400
/** … but no later than this after the first, however often it is saved. */
const latestMs = 2000
/** Looks by itself this often: another server, or this one before it was ended, may have left something, ms. */
const againMs = 30_000

interface Behind {
  readonly workshop: string
  readonly id: string
  readonly version: number
  readonly document: unknown
  readonly rules: RuleOverrides
  readonly system: 'metric' | 'imperial'
  readonly currency: string
  readonly shop: number
  /** When it was asked for. */
  readonly now: string
}

const tooLarge = {
  verdict: null,
  headline: 'Too large to check at once',
  reason: 'Open the job. The bench takes as long as it needs.',
  specified_verdict: null,
  specified_headline: null,
} as const

/**
 * Checks the outdated jobs: saved ones, and all open ones of a shop with changed rules. It asks the database for
 * them, so that none is forgotten whenever a server ends, and never overwrites a newer verdict.
 */
export class JudgingQueue {
  private running: Promise<void> | null = null
  private isAsked = false
  private soon: ReturnType<typeof setTimeout> | null = null
  /** When the first of the saves that are not checked yet came in. */
  private firstSavedAt: number | null = null
  private readonly timer: ReturnType<typeof setInterval>

  constructor(
    private readonly sql: Sql,
    private readonly judge: Judge,
  ) {
    this.timer = setInterval(() => {
      this.wake()
    }, againMs)
    this.timer.unref()
  }

  /** A job was saved: it is checked a moment later, with whatever is saved until then. */
  readonly saved = (): void => {
    const now = Date.now()
    this.firstSavedAt ??= now
    if (this.soon) clearTimeout(this.soon)
    this.soon = setTimeout(
      () => {
        this.firstSavedAt = null
        this.wake()
      },
      Math.max(0, Math.min(restedMs, this.firstSavedAt + latestMs - now)),
    )
  }

  /** Something may be behind. */
  readonly wake = (): void => {
    this.isAsked = true
    this.running ??= this.run().finally(() => {
      this.running = null
      if (this.isAsked) this.wake()
    })
  }

  /** Until nothing is behind. */
  async settled(): Promise<void> {
    this.wake()
    while (this.running) await this.running
  }

  stop(): void {
    if (this.soon) clearTimeout(this.soon)
    clearInterval(this.timer)
  }

  private async run(): Promise<void> {
    while (this.isAsked) {
      this.isAsked = false
      try {
        let rows = await this.behind(null)
        // Jobs that are saved from now on need another query.
        const until = rows[0]?.now ?? null
        for (; rows.length > 0; rows = await this.behind(until))
          await Promise.all(rows.map((row) => this.judgeOne(row)))
      } catch (cause) {
        // The database may be unreachable for a moment: outdated jobs stay outdated.
        logProblem('Checking waiting jobs:', cause)
      }
    }
  }

  /** @param until only jobs saved by then; null for all */
  private behind(until: string | null): Promise<Behind[]> {
    const { sql } = this
    const savedBefore = until === null ? sql`true` : sql`updated_at <= ${until}::text::timestamptz`
    const columns = sql`job.workshop_id as workshop, job_id as id, job.version, document, rules, units as system, currency, workshop.version as shop, now()::text as now`
    // Each half uses its own index, which holds only jobs that are behind or may be.
    return sql<Behind[]>`
      (select ${columns} from job join workshop using (workshop_id)
        where judged_version <> job.version and deleted_at is null and ${savedBefore} order by updated_at desc limit ${batch})
      union all
      (select ${columns} from workshop cross join lateral (
          select * from job
          where job.workshop_id = workshop.workshop_id and judged_shop < workshop.version
            and stage <> 'done' and judged_version = job.version and deleted_at is null and ${savedBefore}
          limit ${batch}) job
        limit ${batch})
      limit ${batch}`
  }

  private async judgeOne(row: Behind): Promise<void> {
    const { workshop, id, version, shop } = row
    const judged = await this.verdictOf(row)
    await this.sql`
      update job set ${this.sql({ ...judged, judged_version: version, judged_shop: shop })}
      where workshop_id = ${workshop} and job_id = ${id} and version = ${version}
        and (judged_version <> ${version} or judged_shop < ${shop})`
  }

  private async verdictOf({
    document,
    rules,
    system,
    currency,
  }: Behind): Promise<ListVerdict | typeof tooLarge> {
    try {
      return await this.judge.verdict({ document: documentOf(document), rules, units: { system, currency } })
    } catch (cause) {
      if (!(cause instanceof TooLarge)) logProblem('A job that cannot be checked:', cause)
      return tooLarge
    }
  }
}
