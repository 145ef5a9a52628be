import { usualLetterhead, type Letterhead } from '#core/quotation/terms'
import type { LetterheadRow } from '../../server/repositories/letterheads'
import { readKept } from '../device/answers'

/** What the workshop puts on its quotations; also without a connection, as this device keeps it. */
export function useLetterhead() {
  const row = shallowRef<LetterheadRow | null>(null)
  const problem = ref('')
  async function load(): Promise<void> {
    const answer = await readKept<LetterheadRow>('/api/letterhead')
    if (answer.kind === 'ok') row.value = answer.data
    else problem.value = problemOf(answer, 'The server cannot be reached. The usual letterhead is shown.')
  }
  onMounted(load)
  return {
    row,
    problem,
    /** Whether it is known what the letterhead is, or that it cannot be known. */
    isSettled: computed(() => row.value !== null || problem.value !== ''),
    letterhead: computed((): Letterhead => row.value?.letterhead ?? usualLetterhead),
  }
}
