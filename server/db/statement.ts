import type { Sql } from 'postgres'

/** Carries out a statement on a connection that is its own meanwhile. */
type Execute = <T>(statement: Statement<T>) => Promise<T>

/**
 * SQL as it is written, carried out once when it is awaited. Until then it is a fragment that another statement may
 * hold. It belongs to no connection: {@link Statement.on} writes it down for one.
 */
export class Statement<T = unknown> implements PromiseLike<T> {
  private result: Promise<T> | null = null

  constructor(
    private readonly strings: TemplateStringsArray,
    private readonly values: readonly unknown[],
    private readonly execute: Execute,
  ) {}

  /** The statement with its fragments, for one connection. */
  on(connection: Sql): PromiseLike<T> {
    const written = (value: unknown): unknown =>
      value instanceof Statement
        ? value.on(connection)
        : Array.isArray(value) && value.some((one) => one instanceof Statement)
          ? value.map(written)
          : value
    const values = this.values.map(written)
    return connection(this.strings, ...(values as never[])) as unknown as PromiseLike<T>
  }

  private once(): Promise<T> {
    return (this.result ??= this.execute(this))
  }

  then<A = T, B = never>(
    done?: ((value: T) => A | PromiseLike<A>) | null,
    failed?: ((cause: unknown) => B | PromiseLike<B>) | null,
  ): Promise<A | B> {
    return this.once().then(done, failed)
  }
  catch<B = never>(failed: (cause: unknown) => B | PromiseLike<B>): Promise<T | B> {
    return this.once().catch(failed)
  }
  finally(done: () => void): Promise<T> {
    return this.once().finally(done)
  }
}

/** A transaction that takes its statements, from begin to commit or rollback. */
export type Together = <T>(work: (tx: Sql) => Promise<T>) => Promise<T>

/**
 * Builder of SQL for the repositories, in the form of the client library.
 * @param writer writes down names, values and JSON; it is never connected
 */
export function sqlOf(writer: Sql, execute: Execute, begin?: Together): Sql {
  const write = (first: unknown, ...rest: unknown[]): unknown =>
    Array.isArray(first) && 'raw' in first
      ? new Statement(first as unknown as TemplateStringsArray, rest, execute)
      : (writer as unknown as (...args: unknown[]) => unknown)(first, ...rest)
  return Object.assign(write, { json: writer.json, begin }) as unknown as Sql
}
