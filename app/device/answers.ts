import { ask, type Answer } from '../utils/api'
import { withDevice } from './database'

/** Longest wait for the server where the device has an answer of its own, ms. */
const patienceMs = 4000

const keep = (path: string, data: unknown): Promise<void> =>
  withDevice(async (database) => {
    await database.put('answers', { path, data })
  }, undefined)

/** The last answer of the server that this device keeps; undefined if it keeps none. */
export async function keptAnswer<T>(path: string): Promise<T | undefined> {
  const kept = await withDevice((database) => database.get('answers', path), undefined)
  return kept?.data as T | undefined
}

/** Reads from the server; where it cannot be reached, the answer that it gave last. */
export async function readKept<T>(path: string): Promise<Answer<T>> {
  const answer = await ask<T>(path, { signal: AbortSignal.timeout(patienceMs) })
  if (answer.kind === 'ok') void keep(path, answer.data)
  if (answer.kind !== 'unreachable') return answer
  const kept = await keptAnswer<T>(path)
  return kept === undefined ? answer : { kind: 'ok', data: kept }
}
