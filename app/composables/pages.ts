import { until, useMousePressed } from '@vueuse/core'
import { isReachable } from '../device/connection'
import { read, type Answer as Got } from '../utils/api'
import { latest } from '../utils/latest'

/** An answer with a page of a list: the query for the next page, null at the end. */
interface Page {
  readonly next: string | null
}

/** A press that lasts longer is none on a row, ms. */
const pressMs = 1000

/** Waits until no pointer is pressed and the click has been handled: a row that moves would lose it. */
function usePatience(): () => Promise<void> {
  const { pressed } = useMousePressed()
  return async () => {
    if (!pressed.value) return
    await until(pressed).toBe(false, { timeout: pressMs })
    await new Promise(requestAnimationFrame)
  }
}

/**
 * A list that loads page by page. An answer to an earlier query is ignored.
 * @param pathOf the query after a page's end; null for the first page
 * @param rowsOf the rows of an answer
 * @param keptRows the rows that this device keeps, for when the server cannot be reached; null if it keeps none
 */
export function usePages<Row, Answer extends Page>(
  pathOf: (after: string | null) => string,
  rowsOf: (answer: Answer) => readonly Row[],
  keptRows: () => Promise<readonly Row[] | null> = () => Promise.resolve(null),
) {
  const rows = shallowRef<readonly Row[] | null>(null)
  const answer = shallowRef<Answer | null>(null)
  const problem = ref('')
  /** Whether the rows are those that this device keeps. */
  const isKept = ref(false)
  const newest = latest()
  const patience = usePatience()
  interface Listed {
    readonly rows: readonly Row[]
    /** Null where the rows are those that this device keeps. */
    readonly answer: Answer | null
  }
  /**
   * Pages that are to be listed: a page that was asked for is not forgotten where the list is asked again meanwhile.
   */
  let pages = 1

  async function patiently(path: string): Promise<Got<Answer>> {
    const got = await read<Answer>(path)
    await patience()
    return got
  }

  /** Asks for the page behind an end; its rows go behind those before it. */
  async function ask(after: string | null, before: readonly Row[]): Promise<Listed | null> {
    const got = await newest(patiently(pathOf(after)))
    if (!got) return null
    isKept.value = false
    if (got.kind !== 'ok') {
      problem.value = problemOf(got, 'The server cannot be reached. The list may be old.')
      return null
    }
    problem.value = ''
    return { rows: [...before, ...rowsOf(got.data)], answer: got.data }
  }
  function show(listed: Listed | null): void {
    if (!listed) return
    rows.value = listed.rows
    answer.value = listed.answer
  }

  /**
   * Shows the rows that this device keeps, at once, where the server cannot be reached. False if there are none, or
   * the server can be reached.
   */
  async function showKept(): Promise<boolean> {
    if (isReachable.value) return false
    const kept = await keptRows()
    if (!kept) return false
    problem.value = ''
    isKept.value = true
    show({ rows: kept, answer: null })
    return true
  }

  /** As many pages as are to be listed, again. */
  async function again(): Promise<void> {
    let listed = await ask(null, [])
    for (let page = 1; page < pages && listed?.answer?.next; page++)
      listed = await ask(listed.answer.next, listed.rows)
    show(listed)
  }
  return {
    rows,
    /** The last answer as it came. */
    answer,
    problem,
    isKept,
    load: async () => {
      pages = 1
      if (!(await showKept())) show(await ask(null, []))
      if (problem.value) await showKept()
    },
    more: async () => {
      if (!answer.value?.next) return
      pages++
      show(await ask(answer.value.next, rows.value ?? []))
    },
    again,
    hasMore: computed(() => Boolean(answer.value?.next)),
    /** Whether the listed rows are outdated. */
    forget: () => {
      rows.value = null
    },
  }
}
