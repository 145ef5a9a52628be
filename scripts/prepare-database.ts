// Brings the database of DATABASE_URL up to date and, when it is empty, loads the demo jobs (not with --empty).
// Before anything is changed in a database that holds something, a backup is made. The role of the application, named
// in APPLICATION_DATABASE_URL, is made and given its rights.
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { connect } from '../server/db/connection'
import { migrate, pendingMigrations, SchemaMismatch } from '../server/db/migrate'
import { loadDemo } from '../server/db/demo'
import { loadDemoYears } from '../server/db/demo-years'
import { allowApplication } from '../server/db/role'
import { backUpBefore, keepNewest } from './lib/backup.mjs'
import { dataFolder, giveUp, postgresPrograms } from './lib/machine.mjs'
import { plainWords } from './lib/plain-errors.mjs'

const backupsKept = 5
const folder = (path: string): string => fileURLToPath(new URL(path, import.meta.url))
const migrations = folder('../server/db/migrations')
const url = process.env.DATABASE_URL ?? ''
const sql = connect(url)
try {
  const { pending, applied } = await pendingMigrations(sql, migrations)
  if (pending.length > 0 && applied > 0 && !process.argv.includes('--backed-up')) {
    const backups = join(dataFolder, 'backups')
    const file = backUpBefore('migration', process.env.POSTGRES_PROGRAMS ?? postgresPrograms(), url, backups)
    keepNewest('migration', backups, backupsKept)
    console.log(`Backed up to ${file}`)
  }
  const done = await migrate(sql, migrations)
  const loaded = process.argv.includes('--empty') ? 0 : await loadDemo(sql, folder('../demo'))
  await sql`insert into workshop (name) select 'My workshop' where not exists (select 1 from workshop)`
  if (loaded > 0) await loadDemoYears(sql, folder('../demo/years/years.json'))
  const application = process.env.APPLICATION_DATABASE_URL
  if (application) await allowApplication(sql, application)
  if (done.length > 0) console.log(`Migrated: ${done.join(', ')}`)
  if (loaded > 0) console.log(`Loaded ${loaded} demo jobs`)
} catch (cause) {
  const words = cause instanceof SchemaMismatch ? cause.message : plainWords(cause, url)
  if (words === null) throw cause
  giveUp(words)
} finally {
  await sql.end()
}
