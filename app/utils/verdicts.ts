import type { Verdict } from '#core/system/verdict'

/** Text colour of each verdict, always next to its shape and word. */
export const verdictColour: Readonly<Record<Verdict, string>> = {
  suits: 'text-suits',
  'suits-once-changed': 'text-changed',
  'measure-first': 'text-measure',
  'does-not-suit': 'text-bad',
}
