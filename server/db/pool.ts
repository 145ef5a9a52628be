import postgres, { type Sql } from 'postgres'
import { connect } from './connection'
import { sqlOf, type Statement } from './statement'

interface PoolLimits {
  /** Connections for transactions, and as many for single statements, at most. */
  readonly size: number
  /** Longest wait for a connection, ms. */
  readonly waitMs: number
  /** Longest wait for the answer to a statement, ms: a database that is frozen gives none. */
  readonly answerMs: number
}
const usual: PoolLimits = { size: 8, waitMs: 12_000, answerMs: 12_000 }

/** The failure of a request without an answer from the database; `code` tells which. */
class PoolError extends Error {
  constructor(
    readonly code: 'POOL_BUSY' | 'CONNECTION_CLOSED',
    words: string,
  ) {
    super(words)
  }
}

/** The rows that statements see: those of one workshop, or of all for work of the server itself. */
type Scope = string
export const everyWorkshop: Scope = 'all'

/** One connection. It serves one request at a time, and is never opened again once it is closed. */
class Lane {
  isOver = false
  /** The scope that the connection is set to. */
  private scope: Scope | null = null
  private readonly sql: Sql
  /** Ends when the statement before is answered: one is on its way at a time. */
  private last: Promise<unknown> = Promise.resolve()

  constructor(
    url: string,
    private readonly answerMs: number,
    closed: () => void,
  ) {
    this.sql = connect(url, {
      max: 1,
      onclose: () => {
        this.end()
        closed()
      },
    })
  }

  /** Ends it: waiting requests are refused. */
  end(): void {
    if (this.isOver) return
    this.isOver = true
    void this.sql.end({ timeout: 0 })
  }

  /** Sets which rows later statements see. */
  async enter(scope: Scope): Promise<void> {
    if (this.scope === scope) return
    this.scope = null
    await this.run((sql) => sql`select set_config('jovial.scope', ${scope}, false)`)
    this.scope = scope
  }

  execute<T>(statement: Statement<T>): Promise<T> {
    return this.run((sql) => statement.on(sql))
  }

  /** Does something on the connection after the earlier requests. */
  private run<T>(work: (sql: Sql) => PromiseLike<T>): Promise<T> {
    const answer = this.last.then(() => this.answer(work))
    this.last = answer.catch(() => undefined)
    return answer
  }

  /** A statement that has no answer ends the connection. */
  private async answer<T>(work: (sql: Sql) => PromiseLike<T>): Promise<T> {
    if (this.isOver) throw new PoolError('CONNECTION_CLOSED', 'The connection to the database was lost')
    const timer = setTimeout(() => {
      this.end()
    }, this.answerMs)
    try {
      return await work(this.sql)
    } catch (cause) {
      if (!isRefusal(cause)) this.end()
      throw cause
    } finally {
      clearTimeout(timer)
    }
  }
}

/** Whether the database itself refused a statement, and goes on; anything else has cost the connection. */
const isRefusal = (cause: unknown): boolean =>
  cause instanceof postgres.PostgresError && !['FATAL', 'PANIC'].includes(cause.severity)

/** Some connections, each lent to one request at a time; the others wait. */
class Lanes {
  private readonly lanes = new Set<Lane>()
  private readonly free: Lane[] = []
  private readonly waiting: { take: (lane: Lane) => void; timer: NodeJS.Timeout }[] = []

  constructor(
    private readonly url: string,
    private readonly limits: PoolLimits,
  ) {}

  /** Waits for a connection and lends it for the rows of a scope. */
  async lend<T>(scope: Scope, use: (lane: Lane) => Promise<T>): Promise<T> {
    const lane = await this.take()
    try {
      await lane.enter(scope)
      return await use(lane)
    } finally {
      this.giveBack(lane)
    }
  }

  private take(): Promise<Lane> {
    const lane = this.free.pop()
    if (lane) return Promise.resolve(lane)
    if (this.lanes.size < this.limits.size) return Promise.resolve(this.newLane())
    return new Promise((resolve, reject) => {
      const waiter = {
        take: resolve,
        timer: setTimeout(() => {
          this.waiting.splice(this.waiting.indexOf(waiter), 1)
          reject(new PoolError('POOL_BUSY', 'No connection to the database was free in time'))
        }, this.limits.waitMs),
      }
      this.waiting.push(waiter)
    })
  }

  private newLane(): Lane {
    const lane = new Lane(this.url, this.limits.answerMs, () => this.forget(lane))
    this.lanes.add(lane)
    return lane
  }

  private forget(lane: Lane): void {
    this.lanes.delete(lane)
    const at = this.free.indexOf(lane)
    if (at >= 0) this.free.splice(at, 1)
  }

  private giveBack(lane: Lane): void {
    if (lane.isOver) this.forget(lane)
    const next = this.waiting.shift()
    if (!next) {
      if (!lane.isOver) this.free.push(lane)
      return
    }
    clearTimeout(next.timer)
    next.take(lane.isOver ? this.newLane() : lane)
  }

  /** Closes all; statements under way are refused. */
  end(): void {
    for (const lane of this.lanes) {
      lane.end()
      this.forget(lane)
    }
  }
}

/** Does something on a connection that succeeds as a whole or not at all. */
async function together<T>(lane: Lane, writer: Sql, work: (tx: Sql) => Promise<T>): Promise<T> {
  /** Errors of statements: the first one loses a transaction, whether or not the error is caught. */
  const failures: unknown[] = []
  const tx = sqlOf(writer, (statement) =>
    lane.execute(statement).catch((cause: unknown) => {
      failures.push(cause)
      throw cause
    }),
  )
  await tx`begin`
  try {
    const result = await work(tx)
    if (failures.length > 0) throw failures[0]
    await tx`commit`
    return result
  } catch (cause) {
    if (!lane.isOver) await tx`rollback`.catch(() => lane.end())
    throw cause
  }
}

/**
 * Connections to the database, each lent to one request at a time. The client library sends statements of several
 * requests over one connection and reconnects by itself, also in the middle of a transaction. A statement then
 * reaches another transaction or none. Here a closed connection is given up, and its transaction with it.
 * Transactions have connections of their own: a read never waits behind saves that wait for a row.
 */
export class Pool {
  private readonly statements: Lanes
  private readonly transactions: Lanes
  private readonly writer: Sql
  /** For work of the server itself, which sees every workshop. */
  readonly sql: Sql

  constructor(url: string, limits: Partial<PoolLimits> = {}) {
    this.statements = new Lanes(url, { ...usual, ...limits })
    this.transactions = new Lanes(url, { ...usual, ...limits })
    this.writer = connect(url, { max: 1 })
    this.sql = this.within(everyWorkshop)
  }

  /** Repositories write SQL with it: it sees only the rows of a scope. */
  within(scope: Scope): Sql {
    return sqlOf(
      this.writer,
      (statement) => this.statements.lend(scope, (lane) => lane.execute(statement)),
      (work) => this.transactions.lend(scope, (lane) => together(lane, this.writer, work)),
    )
  }

  /** Closes all connections; statements under way are refused. */
  end(): void {
    this.statements.end()
    this.transactions.end()
  }
}
