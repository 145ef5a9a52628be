import { checksNext } from '#core/logbook/flags'
import type { EntryBody, LogEntry } from '#core/logbook/entry'
import { seriesOf } from '#core/logbook/series'
import { resolveRules } from '#core/rules/rules'
import { asJson, ask, read, type StoredJob } from '../utils/api'
import type { WholeCraft } from '../utils/craft'

/** One craft with its logbook, as its page shows it. */
export function useCraft(id: () => string) {
  const whole = shallowRef<WholeCraft | null>(null)
  const entries = shallowRef<readonly LogEntry[]>([])
  const problem = ref('')
  const shop = useShop()
  const who = useDeviceName()
  const { q } = useWriting()
  const name = (): string => signedAs(who.value)
  const unreachable = 'The server cannot be reached. Nothing was saved.'

  async function load(): Promise<void> {
    const [craft, log] = await Promise.all([
      read<WholeCraft>(`/api/craft/${id()}`),
      read<readonly LogEntry[]>(`/api/craft/${id()}/log`),
    ])
    problem.value =
      problemOf(craft, 'The server cannot be reached. A logbook needs a connection.') ||
      problemOf(log, unreachable)
    if (craft.kind === 'ok') whole.value = craft.data
    if (log.kind === 'ok') entries.value = log.data
  }
  /** Sends a change of the craft and shows the result. False if it was refused. */
  const send = (path: string, method: 'POST' | 'PUT', body: object): Promise<boolean> =>
    sent(path, asJson(method, { who: name(), ...body }))
  async function sent(path: string, request: RequestInit): Promise<boolean> {
    const answer = await ask(path, request)
    problem.value = problemOf(answer, unreachable)
    if (answer.kind === 'ok') await load()
    return answer.kind === 'ok'
  }
  /** Starts the next job of the craft. @param from a job of the fleet to copy from */
  async function startJob(from?: string): Promise<void> {
    const answer = await ask<StoredJob>(`/api/craft/${id()}/jobs`, asJson('POST', { who: name(), from }))
    problem.value = problemOf(answer, unreachable)
    if (answer.kind === 'ok') await navigateTo(`/jobs/${answer.data.id}`)
  }
  const rules = computed(() => resolveRules(shop.shop.rules))
  const series = computed(() => seriesOf(entries.value, rules.value))
  const checks = computed(() =>
    checksNext({ entries: entries.value, series: series.value }, { rules: rules.value, q, now: Date.now() }),
  )
  return {
    whole,
    entries,
    series,
    checks,
    problem,
    load,
    send,
    startJob,
    addEntries: (added: readonly EntryBody[]) => send(`/api/craft/${id()}/log`, 'POST', { entries: added }),
    addPhoto: (picture: Blob, words: string) =>
      sent(`/api/craft/${id()}/photos?${new URLSearchParams({ who: name(), words })}`, {
        method: 'POST',
        headers: { 'content-type': picture.type },
        body: picture,
      }),
  }
}
