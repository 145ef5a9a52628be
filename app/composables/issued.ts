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
  /** Issues the next for the state of the job that is shown. @param more what its kind needs besides */
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
  /** What stands next to the button. @param lack what is missing before issuing; empty for nothing */
  const hintFor = (lack: string, promise: string): string => {
    if (!account.mayDecide) return needsInstaller
    if (lack) return lack
    return isSaved.value ? promise : 'Wait until the job is saved.'
  }
  return { all, isIssuing, isLoaded, isSaved, hintFor, load, issue }
}

/** What was issued of one kind. */
export function useIssued(kind: PaperKind) {
  const { all, ...rest } = useIssuedPapers()
  return { ...rest, rows: computed(() => all.value.filter((row) => row.kind === kind)) }
}
