import { ask, type ShelfRecord } from '../utils/api'

const current = shallowRef<ReadonlyMap<string, ShelfRecord>>(new Map())
const asked = new Set<string>()

/** What stands on the shelf now under the codes a job uses. */
export function useShelfVersions() {
  async function look(code: string): Promise<void> {
    if (asked.has(code)) return
    asked.add(code)
    const answer = await ask<ShelfRecord[]>(`/api/shelf/current?codes=${encodeURIComponent(code)}`)
    if (answer.kind === 'ok')
      current.value = new Map([...current.value, ...answer.data.map((part) => [part.code, part] as const)])
    else asked.delete(code)
  }
  /** Forgets what was seen, after the shelf changed. */
  const forget = (): void => {
    asked.clear()
    current.value = new Map()
  }
  return { current, look, forget }
}
