import postgres, { type Options, type Sql } from 'postgres'

/** No statement, lock or transaction that stands still holds up the others for longer, ms. */
const limits = {
  statement_timeout: 15_000,
  lock_timeout: 5000,
  idle_in_transaction_session_timeout: 10_000,
}

/**
 * Opens connections to a database, at first use. Notices are not errors, and `date` stays the plain text it is.
 * @param more settings of the client library, over these
 */
export const connect = (url: string, more: Options<Record<string, never>> = {}): Sql =>
  postgres(url, {
    max: 8,
    connect_timeout: 5,
    onnotice: () => {},
    connection: { application_name: 'jovial-anchor', ...limits },
    types: {
      date: { to: 1082, from: [1082], serialize: (value: string) => value, parse: (value: string) => value },
    },
    ...more,
  }) as unknown as Sql
