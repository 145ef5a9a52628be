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

  /** Asks for the page behind an end; its rows go behind those before it. */
  async function ask(after: string | null, before: readonly Row[]): Promise<readonly Row[] | null> {
    const got = await newest(read<Answer>(pathOf(after)))
    if (!got) return null
    if (got.kind !== 'ok') {
      problem.value = problemOf(got, 'The server cannot be reached. The list may be old.')
      return null
    }
    answer.value = got.data
    problem.value = ''
    return [...before, ...rowsOf(got.data)]
  }
  const show = (now: readonly Row[] | null): void => {
    if (now) rows.value = now
  }

  /** As many pages as are listed, anew. */
  async function again(): Promise<void> {
    const listed = rows.value?.length ?? 0
    let now = await ask(null, [])
    while (now && now.length < listed && answer.value?.next) now = await ask(answer.value.next, now)
    show(now)
  }
  return {
    rows,
    /** The last answer as it came. */
    answer,
    problem,
    load: async () => show(await ask(null, [])),
    more: async () => {
      if (answer.value?.next) show(await ask(answer.value.next, rows.value ?? []))
    },
    again,
    hasMore: computed(() => Boolean(answer.value?.next)),
    /** Nothing of what was listed before is true any more. */
    forget: () => {
      rows.value = null
    },
  }
}
