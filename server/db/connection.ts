import postgres, { type Sql } from 'postgres'

/** No statement, lock or transaction that stands still holds up the others for longer, ms. */
const limits = {
  statement_timeout: 15_000,
  lock_timeout: 5000,
  idle_in_transaction_session_timeout: 10_000,
}

/** Opens a pool. Notices are not errors, and `date` stays the plain text it is. */
export const connect = (url: string): Sql =>
  postgres(url, {
    max: 8,
    connect_timeout: 5,
    onnotice: () => {},
    connection: { application_name: 'jovial-anchor', ...limits },
    types: {
      date: { to: 1082, from: [1082], serialize: (value: string) => value, parse: (value: string) => value },
    },
  }) as unknown as Sql
