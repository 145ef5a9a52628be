import { stageOfPaper, type PaperKind } from '#core/papers/kinds'
import { readChanged, readKept } from '../device/answers'
import type { Answer, SheetRow } from '../utils/api'

/** Everything issued for the job that is open, newest first, and issuing the next. */
export function useIssuedPapers() {
  const bench = useJob()
  const account = useAccount()
  const who = useDeviceName()
  const all = shallowRef<readonly SheetRow[]>([])
  const isIssuing = ref(false)
  const isLoaded = ref(false)

  async function load(from: typeof readKept = readKept): Promise<void> {
    const answer = await from<SheetRow[]>(`/api/jobs/${bench.id}/sheets`)
    if (answer.kind === 'ok') all.value = answer.data
    isLoaded.value = true
  }
  /** Issues the next one for the shown state of the job. @param more additional data of its kind */
  async function issue(more: object = {}): Promise<Answer<SheetRow>> {
    isIssuing.value = true
    const seen = { version: bench.version, epoch: bench.epoch, who: signedAs(who.value) }
    const answer = await ask<SheetRow>(`/api/jobs/${bench.id}/sheets`, asJson('POST', { ...seen, ...more }))
    isIssuing.value = false
    if (answer.kind === 'ok') {
      void load(readChanged)
      const reached = stageOfPaper[answer.data.kind]
      if (reached) bench.reach(reached)
    }
    return answer
  }
  const isSaved = computed(() => bench.save.kind === 'saved')
  /** Words next to the button. @param lack the missing item before issuing; empty if there is none */
  const hintFor = (lack: string, promise: string): string => {
    if (!account.mayDecide) return needsInstaller
    if (lack) return lack
    return isSaved.value ? promise : 'Wait until the job is saved.'
  }
  return { all, isIssuing, isLoaded, isSaved, hintFor, load, issue }
}

/** Issued sheets of one kind. */
export function useIssued(kind: PaperKind) {
  const { all, ...rest } = useIssuedPapers()
  return { ...rest, rows: computed(() => all.value.filter((row) => row.kind === kind)) }
}
