import type { System } from './system'

/** A stop signal alone is neither seen nor heard. */
export const showStopSignal =
  'Fit a lamp or buzzer to the battery’s stop signal, where somebody sees or hears it.'

/**
 * What warns before the battery cuts out: its own alarm, its stop signal, or a device on board; null for nothing.
 * The battery's own counts first.
 */
export function warningOf({ bank, one }: System): 'alarm' | 'stop' | 'device' | null {
  const { warning } = bank.each
  if (warning !== 'none') return warning
  return one.use.warns === 'yes' ? 'device' : null
}
