import { useEventListener, useIntervalFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Present } from '../../server/repositories/presence'
import type { News } from '../../server/together/hub'
import { signedAs, useDeviceName } from '../composables/device'
import { isReachable } from '../device/connection'
import { inFirstWindow, windowId } from '../device/windows'
import { asJson, ask } from '../utils/api'
import { useAccount } from './account'
import { useJob } from './job'

const tellEveryMs = 20_000
/** A server-sent stream that has ended is opened again after this long, ms. */
const openAgainMs = 3000

/** Other windows, here and on other devices: their changes, and the people who have the same job open. */
export const useTogether = defineStore('together', () => {
  const account = useAccount()
  const bench = useJob()
  const who = useDeviceName()
  /** Counts changes of jobs by others: lists follow it. */
  const changes = ref(0)
  const shown = shallowRef<{ readonly job: string | null; readonly view: string }>({ job: null, view: '' })
  const present = shallowRef<readonly Present[]>([])
  const others = computed(() => present.value.filter(({ window }) => window !== windowId()))

  /** Says which job this window shows. */
  async function tell(): Promise<void> {
    const { job, view } = shown.value
    const body = { window: windowId(), who: signedAs(who.value), job, view }
    const answer = await ask<{ here: readonly Present[] }>('/api/presence', asJson('PUT', body))
    if (answer.kind === 'ok' && job === shown.value.job) present.value = answer.data.here
  }
  function show(job: string | null, view: string): void {
    if (job === shown.value.job && view === shown.value.view) return
    if (job !== shown.value.job) present.value = []
    shown.value = { job, view }
    void tell()
  }

  function hear(news: News): void {
    switch (news.kind) {
      case 'job':
        changes.value++
        if (news.version > (bench.versionOf(news.job) ?? Infinity) || news.isDeleted)
          void bench.refresh(news.job)
        return
      case 'presence':
        if (news.job === shown.value.job) present.value = news.here
        return
      case 'again':
        changes.value++
        if (bench.id) void bench.refresh(bench.id)
        if (shown.value.job) void tell()
    }
  }

  const channel = new BroadcastChannel('jovial-anchor.news')
  channel.onmessage = ({ data }: MessageEvent<News>) => {
    hear(data)
  }
  const hearAndForward = (news: News): void => {
    hear(news)
    channel.postMessage(news)
  }

  /**
   * One window listens for all of this browser: a browser opens few connections to one server.
   * @param wasOpen whether news may have been missed before
   */
  function listen(wasOpen = false): void {
    const source = new EventSource(`/api/news?window=${windowId()}`)
    for (const kind of ['job', 'presence', 'again'] as const)
      source.addEventListener(kind, ({ data }: MessageEvent<string>) => {
        hearAndForward({ kind, ...(JSON.parse(data) as object) } as News)
      })
    source.addEventListener('alive', () => {
      isReachable.value = true
    })
    let missed = wasOpen
    source.onopen = () => {
      if (missed) hearAndForward({ kind: 'again' })
      missed = true
    }
    // A stream that the server refuses does not open again by itself. Nobody listens without being signed in.
    source.onerror = () => {
      if (source.readyState === EventSource.CLOSED && !account.mustSignIn)
        setTimeout(() => {
          listen(missed)
        }, openAgainMs)
    }
  }

  function start(): void {
    inFirstWindow('news', () => {
      listen()
    })
    useIntervalFn(() => shown.value.job && isReachable.value && void tell(), tellEveryMs)
    useEventListener(window, 'pagehide', () => {
      if (!shown.value.job) return
      const body = { window: windowId(), who: 'left', job: null }
      void fetch('/api/presence', { ...asJson('PUT', body), keepalive: true }).catch(() => undefined)
    })
    useEventListener(window, 'pageshow', (event) => {
      if (event.persisted) hear({ kind: 'again' })
    })
    watch(isReachable, (reachable) => {
      if (reachable) hear({ kind: 'again' })
    })
  }
  return { changes, others, show, start }
})
