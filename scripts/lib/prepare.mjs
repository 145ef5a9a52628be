import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { root } from './machine.mjs'

/**
 * Brings a database up to date, loads the demo into it where it is empty, and gives the role of the application its
 * rights.
 * @param bin where the programs of the PostgreSQL that made the data are, where they are known
 */
export function prepareDatabase({ url, applicationUrl, bin }) {
  const script = join(root, 'scripts', 'prepare-database.ts')
  const { status } = spawnSync('npx', ['--no-install', 'tsx', script], {
    cwd: root,
    stdio: 'inherit',
    env: {
      ...process.env,
      DATABASE_URL: url,
      ...(applicationUrl && { APPLICATION_DATABASE_URL: applicationUrl }),
      ...(bin && { POSTGRES_PROGRAMS: bin }),
    },
  })
  if (status !== 0) throw new Error('The database could not be brought up to date')
}
