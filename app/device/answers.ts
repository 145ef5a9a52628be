import { read, readOrGiveUp, type Answer } from '../utils/api'
import { withDevice } from './database'

const keep = (path: string, data: unknown): Promise<void> =>
  withDevice(async (database) => {
    await database.put('answers', { path, data })
  }, undefined)

/** The last answer of the server that this device keeps; undefined if it keeps none. */
export async function keptAnswer<T>(path: string): Promise<T | undefined> {
  const kept = await withDevice((database) => database.get('answers', path), undefined)
  return kept?.data as T | undefined
}

/** Whether this device keeps an answer, without reading it: a page of the shelf is large. */
const keepsAnswer = async (path: string): Promise<boolean> =>
  (await withDevice((database) => database.getKey('answers', path), undefined)) !== undefined

/** Reads from the server; where it cannot be reached, the answer that it gave last. */
export async function readKept<T>(path: string): Promise<Answer<T>> {
  const answer = await readOrGiveUp<T>(path, await keepsAnswer(path))
  if (answer.kind === 'ok') void keep(path, answer.data)
  if (answer.kind !== 'unreachable') return answer
  const kept = await keptAnswer<T>(path)
  return kept === undefined ? answer : { kind: 'ok', data: kept }
}

/** Reads changed data from the server: this device's copy is older. */
export async function readChanged<T>(path: string): Promise<Answer<T>> {
  const answer = await read<T>(path)
  if (answer.kind === 'ok') await keep(path, answer.data)
  return answer
}
