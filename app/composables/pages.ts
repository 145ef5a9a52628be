import { read } from '../utils/api'
import { latest } from '../utils/latest'

/** An answer that is a page of a list: what to ask for the next of it, null at its end. */
interface Page {
  readonly next: string | null
}

/**
 * A list that comes page by page. An answer to what was asked before counts no more.
 * @param pathOf what to ask for behind a page's end; null for the first page
 * @param rowsOf the rows of an answer
 */
export function usePages<Row, Answer extends Page>(
  pathOf: (after: string | null) => string,
  rowsOf: (answer: Answer) => readonly Row[],
) {
  const rows = shallowRef<readonly Row[] | null>(null)
  const answer = shallowRef<Answer | null>(null)
  const problem = ref('')
  const newest = latest()

  async function ask(after: string | null) {
    const got = await newest(read<Answer>(pathOf(after)))
    if (!got) return
    if (got.kind === 'ok') {
      rows.value = [...(after === null ? [] : (rows.value ?? [])), ...rowsOf(got.data)]
      answer.value = got.data
      problem.value = ''
    } else problem.value = problemOf(got, 'The server cannot be reached. The list may be old.')
  }
  return {
    rows,
    /** The last answer as it came. */
    answer,
    problem,
    load: () => ask(null),
    more: () => (answer.value?.next ? ask(answer.value.next) : Promise.resolve()),
    hasMore: computed(() => Boolean(answer.value?.next)),
    /** Nothing of what was listed before is true any more. */
    forget: () => {
      rows.value = null
    },
  }
}
