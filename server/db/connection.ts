import postgres, { type Sql } from 'postgres'

/** Opens a pool. Notices are not errors, and `date` stays the plain text it is. */
export const connect = (url: string): Sql =>
  postgres(url, {
    max: 8,
    connect_timeout: 5,
    onnotice: () => {},
    types: {
      date: { to: 1082, from: [1082], serialize: (value: string) => value, parse: (value: string) => value },
    },
  }) as unknown as Sql
