// Brings the database of DATABASE_URL up to date and, when it is empty, loads the demo jobs.
import { fileURLToPath } from 'node:url'
import { connect } from '../server/db/connection'
import { migrate } from '../server/db/migrate'
import { loadDemo } from '../server/db/demo'

const folder = (path: string): string => fileURLToPath(new URL(path, import.meta.url))
const sql = connect(process.env.DATABASE_URL ?? '')
const applied = await migrate(sql, folder('../server/db/migrations'))
const loaded = await loadDemo(sql, folder('../demo'))
if (applied.length > 0) console.log(`Migrated: ${applied.join(', ')}`)
if (loaded > 0) console.log(`Loaded ${loaded} demo jobs`)
await sql.end()
