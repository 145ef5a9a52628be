// Moving the data of a cluster to another version of PostgreSQL: dumped by the newer programs, loaded into a cluster
// next to, which takes the place of the old one once it is whole.
import { backUpBefore, restore } from './backup.mjs'
import { postgresPrograms } from './machine.mjs'
import { ownerOf } from './owner.mjs'
import { dropData, replaceData, startCluster } from './postgres.mjs'
import { prepareDatabase } from './prepare.mjs'

const beside = 'cluster-upgraded'

/**
 * Moves the data of the cluster of a name, which nobody may be using. Where anything fails, they stay as they are.
 * @param version of PostgreSQL to move to; its programs are installed
 * @param backups folder in which the dump is kept
 * @returns the folder of the old data, and the file of the dump
 * @throws where the data are in use, or the dump or its loading fails
 */
export async function moveCluster(name, version, backups, { durable = true } = {}) {
  dropData(name, beside)
  const old = await startCluster(name, { durable })
  const own = await ownerOf(old.url, () => 'an upgrade')
  let file
  let isFree = false
  try {
    const owner = await own.take()
    if (owner !== null) throw new Error(`The data is in use at ${owner}. Stop that first`)
    file = backUpBefore('upgrade', postgresPrograms(version), old.url, backups)
    await load(name, version, file, durable)
  } finally {
    await own.release()
    isFree = old.stop()
  }
  if (!isFree) throw new Error('Another program uses the data: end that first')
  return { kept: replaceData(name, beside), file }
}

/** Makes a cluster of a version next to, and loads a dump into it. */
async function load(name, version, file, durable) {
  const moved = await startCluster(name, { durable, folder: beside, version })
  try {
    await restore(moved.bin, moved.url, file, (url) => prepareDatabase({ ...moved, url, isBackedUp: true }))
  } finally {
    moved.stop()
  }
}
