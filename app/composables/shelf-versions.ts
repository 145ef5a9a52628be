import { ask, type ShelfRecord } from '../utils/api'

const current = shallowRef<ReadonlyMap<string, ShelfRecord>>(new Map())
const asked = new Set<string>()

/** Current shelf versions of the parts in a job. */
export function useShelfVersions() {
  async function look(code: string): Promise<void> {
    if (asked.has(code)) return
    asked.add(code)
    const answer = await ask<ShelfRecord[]>(`/api/shelf/current?codes=${encodeURIComponent(code)}`)
    if (answer.kind === 'ok')
      current.value = new Map([...current.value, ...answer.data.map((part) => [part.code, part] as const)])
    else asked.delete(code)
  }
  /** Clears the cache after the shelf changed. */
  const forget = (): void => {
    asked.clear()
    current.value = new Map()
  }
  return { current, look, forget }
}
