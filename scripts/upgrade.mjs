// npm run upgrade: moves the data to the newest PostgreSQL that is installed. The old ones are kept next to.
import { join } from 'node:path'
import { dataFolder, giveUp, installPackages, postgresVersions } from './lib/machine.mjs'
import { speakPlainly } from './lib/plain-errors.mjs'
import { versionOfCluster } from './lib/postgres.mjs'
import { moveCluster } from './lib/upgrade.mjs'

if (process.env.DATABASE_URL)
  giveUp('DATABASE_URL names a PostgreSQL of your own: its own tools upgrade it. Nothing was changed.')
speakPlainly()
installPackages()
const made = versionOfCluster('postgres')
const [newest] = postgresVersions()
if (made === null) giveUp('There are no data yet: npm start makes them with the newest PostgreSQL installed.')
if (made === newest) {
  console.log(`The data are of PostgreSQL ${made}, the newest that is installed. Nothing was changed.`)
  process.exit(0)
}
try {
  const { kept, file } = await moveCluster('postgres', newest, join(dataFolder, 'backups'))
  console.log(
    `The data are of PostgreSQL ${newest} now. Those of ${made} are kept in ${kept}, a dump in ${file}.`,
  )
  process.exit(0)
} catch (cause) {
  giveUp(`${cause.message}. Nothing was changed.`)
}
