// npm run backup -- FILE: a backup of all data while the application runs.
// npm run restore -- FILE: replaces all data with a backup, after a backup of the present data.
import { existsSync, statSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { backUp, backUpBefore, readBackup, restore } from './lib/backup.mjs'
import { ownerOf } from './lib/owner.mjs'
import { dataFolder, giveUp, installPackages, postgresPrograms } from './lib/machine.mjs'
import { prepareDatabase } from './lib/prepare.mjs'
import { speakPlainly } from './lib/plain-errors.mjs'
import { startCluster } from './lib/postgres.mjs'

const [what, name] = process.argv.slice(2)
if (!name) giveUp(`Name the file: npm run ${what} -- FILE`)
const file = resolve(process.env.INIT_CWD ?? '.', name)
if (what === 'backup' && existsSync(file) && statSync(file).isDirectory())
  giveUp(`${file} is a folder: name a file in it`)
speakPlainly()
installPackages()
try {
  // A file that is none is refused before anything is started or touched.
  if (what === 'restore') readBackup(file)
} catch (cause) {
  giveUp(`${cause.message}. Nothing was changed.`)
}
const cluster = process.env.DATABASE_URL
  ? {
      url: process.env.DATABASE_URL,
      applicationUrl: process.env.APPLICATION_DATABASE_URL,
      bin: postgresPrograms(),
      stop() {},
    }
  : await startCluster('postgres', { durable: true })
process.once('exit', () => cluster.stop())
try {
  if (what === 'backup') {
    const bytes = backUp(cluster.bin, cluster.url, file)
    console.log(`${file}: ${(bytes / 1024 / 1024).toFixed(1)} MB, checked`)
  } else {
    const { bin, url } = cluster
    await whileNobodyServes(async (release) => {
      const before = backUpBefore('restore', bin, url, join(dataFolder, 'backups'))
      const prepare = (at) => prepareDatabase({ ...cluster, url: at, isBackedUp: true })
      await restore(bin, url, file, prepare, release)
      console.log(`Restored from ${file}. The previous data is in ${before}.`)
    })
  }
} catch (cause) {
  giveUp(`${cause.message}. Nothing was changed.`)
}

/**
 * Works on data while no application uses them: its changes would be lost.
 * @param work gets the function that releases the lock on the data
 */
async function whileNobodyServes(work) {
  // A database of someone else's is not locked by `npm start` either.
  if (process.env.DATABASE_URL) return work()
  const owner = await ownerOf(cluster.url, () => 'a restore')
  try {
    const served = await owner.take()
    if (served !== null) throw new Error(`Jovial Anchor is running at ${served}. Stop it first`)
    await work(owner.release)
  } finally {
    await owner.release()
  }
}
