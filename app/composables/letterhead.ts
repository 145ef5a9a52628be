import { usualLetterhead, type Letterhead } from '#core/quotation/terms'
import type { LetterheadRow } from '../../server/repositories/letterheads'
import { readKept } from '../device/answers'

/** The workshop's text for its quotations; also without a connection, from this device. */
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
    /** Whether the letterhead is known, or known to be unavailable. */
    isSettled: computed(() => row.value !== null || problem.value !== ''),
    letterhead: computed((): Letterhead => row.value?.letterhead ?? usualLetterhead),
  }
}
