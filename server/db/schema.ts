import type { Sql } from 'postgres'

/** The last migration that this version of the application was written for. A test holds it to the folder. */
export const schemaNumber = 18

/** The last migration that was applied to a database. */
export async function appliedSchema(sql: Sql): Promise<number> {
  const [row] = await sql<{ number: number | null }[]>`select max(number) as number from schema_migration`
  return row?.number ?? 0
}
