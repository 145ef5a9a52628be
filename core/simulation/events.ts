import { elementAt, lastOf } from '#core/collections/held'
import { metric, type DisplayUnits } from '#core/units/display'
import { durationWords, formatQuantity, joinText } from '#core/units/format'

/** A source that would charge the house if allowed. */
export type Charging = 'mains' | 'engine' | 'sun' | 'source'

/** Events in a run. Totals are counted from these, never from their words. */
export type Happening =
  | {
      readonly kind: 'charge-gate'
      readonly open: boolean
      readonly cause: 'voltage'
      readonly volts: number
      readonly limitV: number
    }
  | {
      readonly kind: 'charge-gate'
      readonly open: boolean
      readonly cause: 'temperature'
      readonly celsius: number
    }
  | {
      readonly kind: 'stop'
      readonly of: 'charge' | 'discharge'
      readonly off: boolean
      readonly volts: number
    }
  | {
      readonly kind: 'cut-out'
      readonly out: true
      readonly cause: 'empty' | 'current'
      readonly volts: number
      readonly amps: number
      readonly limitA: number
    }
  | { readonly kind: 'cut-out'; readonly out: false; readonly volts: number }
  | { readonly kind: 'heater'; readonly on: boolean }
  | {
      readonly kind: 'relay'
      readonly contact: 'relay' | 'solenoid'
      readonly closed: boolean
      readonly volts: number
    }
  | { readonly kind: 'dcdc'; readonly running: boolean; readonly volts: number }
  | {
      readonly kind: 'refused'
      readonly source: Charging
      readonly cause: 'cold' | 'heat'
      readonly celsius: number
      /** When it was let again, or went, seconds since the start. */
      readonly untilS: number
    }
  | { readonly kind: 'start-low'; readonly low: boolean; readonly volts: number }
  | { readonly kind: 'dark'; readonly dark: boolean }
  | { readonly kind: 'alternator'; readonly over: boolean; readonly amps: number; readonly limitC: number }

/**
 * An event, its time (seconds since the start), its side, and the name of that side if there are several.
 */
export type SimEvent = Happening & { readonly t: number; readonly side?: string; readonly name?: string }

const volts = (value: number): string => formatQuantity(value, 'V', metric)
const amps = (value: number): string => formatQuantity(Math.round(value), 'A', metric)

const sourceWords: Readonly<Record<Charging, string>> = {
  mains: 'Mains',
  engine: 'The engine',
  sun: 'The sun',
  source: 'Another source',
}

function gateSentence(
  event: Extract<SimEvent, { readonly kind: 'charge-gate' }>,
  celsius: (value: number) => string,
): string {
  if (event.cause === 'temperature')
    return event.open
      ? `BMS allows charging again, cells at ${celsius(event.celsius)}`
      : `BMS stopped charging, cells at ${celsius(event.celsius)}`
  return event.open
    ? 'BMS allows charging again because the voltage has fallen'
    : `BMS stopped charging at ${volts(event.volts)}, above ${volts(event.limitV)}`
}

function alternatorSentence(
  event: Extract<SimEvent, { readonly kind: 'alternator' }>,
  celsius: (value: number) => string,
): string {
  return event.over
    ? `Alternator passed ${celsius(event.limitC)} at ${amps(event.amps)}`
    : 'Alternator is below its limit again'
}

/** Events, in a sentence. */
function sentence(event: SimEvent, units: DisplayUnits): string {
  const celsius = (value: number): string => formatQuantity(value, '°C', units)
  switch (event.kind) {
    case 'charge-gate':
      return gateSentence(event, celsius)
    case 'stop':
      return joinText(
        event.of === 'charge' ? 'Charge' : 'Discharge',
        event.off
          ? ` stop disconnected the lithium at ${volts(event.volts)}`
          : ' stop reconnected the lithium',
      )
    case 'cut-out':
      if (!event.out) return 'BMS reconnected the battery'
      return event.cause === 'current'
        ? `BMS cut out at ${amps(event.amps)}, over ${amps(event.limitA)}`
        : `BMS cut out at ${volts(event.volts)}, battery empty`
    case 'heater':
      return event.on ? 'Battery heater on' : 'Battery heater off'
    case 'relay':
      return joinText(
        event.contact === 'relay' ? 'Relay ' : 'Solenoid ',
        `${event.closed ? 'closed' : 'opened'} at ${volts(event.volts)}`,
      )
    case 'dcdc':
      if (event.running) return 'DC-DC restarted because its input has risen'
      return `DC-DC stopped: its input fell to ${volts(event.volts)}`
    case 'refused':
      return joinText(
        `${sourceWords[event.source]} would charge for ${durationWords((event.untilS - event.t) / 3600)}, `,
        `but the cells are too ${event.cause === 'cold' ? 'cold' : 'hot'}: ${celsius(event.celsius)}`,
      )
    case 'start-low':
      return event.low
        ? `Starting battery is at half charge, ${volts(event.volts)}: it may not start the engine`
        : 'Starting battery has recovered'
    case 'dark':
      return event.dark ? 'The loads went off because nothing feeds the house' : 'The loads came on again'
    case 'alternator':
      return alternatorSentence(event, celsius)
  }
}

/** Events in words; with the name of the alternator if there are several. */
export const eventWords = (event: SimEvent, units: DisplayUnits): string =>
  event.name === undefined ? sentence(event, units) : `${event.name}: ${sentence(event, units)}`

/** Equal for events of one kind on one side: those of one device. */
export const deviceOf = ({ kind, side }: SimEvent): string => `${kind} ${side ?? ''}`

/** Repeats within this time belong to the same line, s. */
const repeatsWithinS = 600
/** Up to so many of one kind in a row have a line each. */
const mostSingle = 4

/** An event of a list, with how many of its kind follow it shortly, and until when, s since the start. */
interface EventLine {
  readonly event: SimEvent
  readonly repeats: number
  readonly untilS: number
}

/**
 * The lines of a list of events in the order of time: a device that switches back and forth is one line.
 * @param events in the order of time
 */
export function eventLines(events: readonly SimEvent[]): EventLine[] {
  const groups: SimEvent[][] = []
  const latest = new Map<string, SimEvent[]>()
  for (const event of events) {
    const device = deviceOf(event)
    const group = latest.get(device)
    if (group && event.t - lastOf(group).t <= repeatsWithinS) group.push(event)
    else {
      const begun = [event]
      groups.push(begun)
      latest.set(device, begun)
    }
  }
  return groups
    .flatMap((group): EventLine[] =>
      group.length > mostSingle
        ? [{ event: elementAt(group, 0), repeats: group.length - 1, untilS: lastOf(group).t }]
        : group.map((event) => ({ event, repeats: 0, untilS: event.t })),
    )
    .sort((a, b) => a.event.t - b.event.t)
}
