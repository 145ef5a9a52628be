// npm run upgrade: moves the data to the newest PostgreSQL that is installed. The old ones are kept next to.
import { join } from 'node:path'
import { dataFolder, giveUp, installPackages, postgresVersions } from './lib/machine.mjs'
import { speakPlainly } from './lib/plain-errors.mjs'
import { versionOfCluster } from './lib/postgres.mjs'
import { moveCluster } from './lib/upgrade.mjs'

if (process.env.DATABASE_URL)
  giveUp('DATABASE_URL selects your own PostgreSQL. Upgrade it with its own tools. Nothing was changed.')
speakPlainly()
installPackages()
const made = versionOfCluster('postgres')
const [newest] = postgresVersions()
if (made === null) giveUp('There is no data yet. npm start creates it with the newest installed PostgreSQL.')
if (made === newest) {
  console.log(`The data already uses PostgreSQL ${made}, the newest installed version. Nothing was changed.`)
  process.exit(0)
}
try {
  const { kept, file } = await moveCluster('postgres', newest, join(dataFolder, 'backups'))
  console.log(
    `The data now uses PostgreSQL ${newest}. The data of version ${made} is kept in ${kept}, a dump in ${file}.`,
  )
  process.exit(0)
} catch (cause) {
  giveUp(`${cause.message}. Nothing was changed.`)
}
