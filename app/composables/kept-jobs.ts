import type { Verdict } from '#core/system/verdict'
import { keptJobs } from '../device/jobs'
import type { JobRow } from '../utils/api'
import type { UnsavedDraft } from '../device/drafts'

interface KeptSearch {
  readonly words: string
  readonly verdict: Verdict | ''
  readonly stage: string
}

/** A job of this device alone, as the list shows it. */
function rowOf({ job, document: { job: head } }: UnsavedDraft, who: string): JobRow {
  const { number, name, customer = '', craft = null, stage, dueDate } = head
  return {
    id: job,
    number,
    name,
    customer,
    craft,
    craftId: null,
    stage,
    dueDate: dueDate ?? null,
    verdict: null,
    headline: 'New on this device',
    reason: 'It gets its number when the server can be reached.',
    specifiedVerdict: null,
    specifiedHeadline: null,
    updatedAt: new Date().toISOString(),
    updatedBy: who,
  }
}

const isFound = (row: JobRow, { words, verdict, stage }: KeptSearch): boolean =>
  (!verdict || row.verdict === verdict) &&
  (!stage || row.stage === stage) &&
  words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => `${row.number} ${row.name} ${row.customer}`.toLowerCase().includes(word))

/** The jobs that this device keeps, for when the server cannot be reached, and those that it alone has. */
export function useKeptJobs() {
  const sync = useSync()
  const who = useDeviceName()
  return {
    /** Found jobs that no server has yet. */
    made: (search: KeptSearch): readonly JobRow[] =>
      sync.made.map((draft) => rowOf(draft, who.value)).filter((row) => isFound(row, search)),
    /** Found jobs of the server, last changed first. Null if this device keeps no job. */
    find: async (search: KeptSearch): Promise<readonly JobRow[] | null> => {
      const rows = (await keptJobs()).flatMap(({ row }) => (row ? [row] : []))
      if (rows.length === 0 && sync.drafts.length === 0) return null
      rows.sort((a, b) => b.updatedAt.localeCompare(a.updatedAt))
      return rows.filter((row) => isFound(row, search))
    },
  }
}
