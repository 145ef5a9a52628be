import type { Change } from '#core/job/change'
import { fieldAt } from '#core/job/document'
import { shownValue } from '#core/job/shown'
import type { Network } from '#core/wiring/network'
import type { Write } from '#core/units/format'

/** A part that was fitted differently, in words: `W3, size: 35 mm²`. */
export function fittedWords({ path, after }: Change, { runs, posts }: Network, q: Write): string {
  const at = fieldAt(path)
  const id = path.split('/')[1] ?? ''
  const post = posts.find((one) => one.id === id)
  const name = runs.find((run) => run.id === id)?.number ?? post?.fitting?.number ?? post?.name ?? id
  if (!at) return `${name}: ${path}`
  const value = (after as { value?: unknown } | undefined)?.value
  return `${name}, ${at.field.label}: ${shownValue(at.field, value, q) || 'unknown'}`
}
