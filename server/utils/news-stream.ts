import { createEventStream, type EventStream, type H3Event } from 'h3'
import type { Hub } from '../together/hub'

/** A word now and then, so that a connection that was lost is noticed on both sides, ms. */
const aliveEveryMs = 15_000
const open = new Set<EventStream>()

/** Ends all streams: a server that stops does not wait for them. */
export function endNews(): void {
  for (const stream of open) void stream.close()
}

/** Sends the news of a workshop as server-sent events until the window closes. */
export function sendNews(
  event: H3Event,
  { hub, workshop, closed }: { readonly hub: Hub; readonly workshop: string; readonly closed: () => void },
): Promise<void> {
  const stream = createEventStream(event)
  open.add(stream)
  const push = (name: string, data: unknown): void => {
    stream.push({ event: name, data: JSON.stringify(data) }).catch(() => undefined)
  }
  const leave = hub.subscribe(workshop, ({ kind, ...data }) => {
    push(kind, data)
  })
  const timer = setInterval(() => {
    push('alive', {})
  }, aliveEveryMs)
  stream.onClosed(() => {
    open.delete(stream)
    clearInterval(timer)
    leave()
    closed()
  })
  push('alive', {})
  return stream.send()
}
