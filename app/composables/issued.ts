import { readKept } from '../device/answers'
import type { Answer, SheetRow } from '../utils/api'

/** What was issued of a kind for the job that is open, newest first, and issuing the next. */
export function useIssued(kind: SheetRow['kind']) {
  const bench = useJob()
  const who = useDeviceName()
  const rows = shallowRef<readonly SheetRow[]>([])
  const isIssuing = ref(false)

  async function load(): Promise<void> {
    const answer = await readKept<SheetRow[]>(`/api/jobs/${bench.id}/sheets`)
    if (answer.kind === 'ok') rows.value = answer.data.filter((row) => row.kind === kind)
  }
  /** Issues the next for the state of the job that is shown. @param more what this kind needs besides */
  async function issue(more: object = {}): Promise<Answer<SheetRow>> {
    isIssuing.value = true
    const seen = { version: bench.version, epoch: bench.epoch, who: who.value || 'Unnamed device' }
    const answer = await ask<SheetRow>(`/api/jobs/${bench.id}/sheets`, asJson('POST', { ...seen, ...more }))
    isIssuing.value = false
    if (answer.kind === 'ok') void load()
    return answer
  }
  return { rows, isIssuing, load, issue }
}
