import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { root } from './machine.mjs'

/**
 * Brings a database up to date, loads the demo into it where it is empty, and gives the role of the application its
 * rights.
 * @param bin where the programs of the PostgreSQL that made the data are, where they are known
 * @param isBackedUp whether a migration needs no backup before it
 * @param isEmpty whether a new database gets a workshop without the demo
 * @throws where it cannot be, in the words of the script
 */
export function prepareDatabase({ url, applicationUrl, bin, isBackedUp = false, isEmpty = false }) {
  const script = join(root, 'scripts', 'prepare-database.ts')
  const args = [script, ...(isBackedUp ? ['--backed-up'] : []), ...(isEmpty ? ['--empty'] : [])]
  const { status, stderr } = spawnSync(join(root, 'node_modules/.bin/tsx'), args, {
    cwd: root,
    stdio: ['inherit', 'inherit', 'pipe'],
    encoding: 'utf8',
    env: {
      ...process.env,
      DATABASE_URL: url,
      ...(applicationUrl && { APPLICATION_DATABASE_URL: applicationUrl }),
      ...(bin && { POSTGRES_PROGRAMS: bin }),
    },
  })
  if (status !== 0) throw new Error(stderr.trim() || 'The database migration failed')
  process.stderr.write(stderr)
}
