import { joinText } from '#core/units/format'
import {
  partAt,
  partsOf,
  valueOf,
  withAssumed,
  withField,
  withNewPart,
  withoutPart,
  type JobDocument,
} from '#core/job/document'
import { cableByTheMetre } from '../listed'
import {
  assumed,
  lithiumStages,
  set,
  setValue,
  valued,
  type Remedy,
  type RemedyOrder,
  type ValuedOrder,
} from '../remedy'
import {
  dcdcForVoltages,
  lowInputDcdc,
  is,
  isolatedDcdc,
  near,
  numberOf,
  regulator,
  relay,
  sizedDcdc,
} from '../wants'

/** Remedies of alternators, links and DC-DC units, and of the batteries they tie together. */
export const linking = {
  'alternator.set-regulator': {
    kind: 'setting',
    label: valued(({ value }, q) => `Set the regulator to ${q(value, 'V')}`),
    takes: 'setting',
    hours: 0.25,
    effect: setValue('regulatorV'),
    adjusts: 'regulatorV',
  },
  'alternator.external-regulator': {
    kind: 'part',
    label: valued(({ value }, q) => `Fit an external regulator set to ${q(value, 'V')}`),
    takes: '1 part with temperature sensor',
    hours: 4,
    effect: set(valued(({ value }) => ({ regulator: 'external', regulatorV: value }))),
    wants: regulator('External regulator', false),
  },
  'alternator.limit-current': {
    kind: 'part',
    label: valued(
      ({ value }, q) => `Fit an external regulator with a temperature sensor, limited to ${q(value, 'A')}`,
    ),
    takes: '1 part',
    hours: 4,
    effect: set(valued(({ value }) => ({ limitA: value, regulator: 'external', fieldWire: 'sensor' }))),
    wants: regulator('External regulator with a temperature sensor', true),
    adjusts: 'limitA',
    arrangement: true,
    smallerMeetsBoth: true,
  },
  'alternator.surge-protector': {
    kind: 'part',
    label: () => 'Fit a surge protector on the alternator output',
    takes: '1 part',
    hours: 0.5,
    effect: set(() => ({ surgeProtector: 'yes' })),
    wants: 'Surge protector',
  },
  'alternator.charge-stop-wire': {
    kind: 'wiring',
    label: () => 'Wire the battery’s charge-stop signal to the regulator',
    takes: 'wire; both must have the terminal',
    hours: 2,
    effect: set(() => ({ chargeStopWire: 'yes' })),
  },
  'link.duty': {
    kind: 'part',
    label: valued(({ value }, q) => `Fit a duty-cycling relay that opens above ${q(value, 'A')}`),
    takes: '1 part',
    hours: 2,
    effect: set(valued(({ value }) => ({ kind: 'duty', opensAboveA: value, offTimeS: 60 }))),
    wants: relay(
      'Duty-cycling relay',
      (part, { value = 0 }) => is(part, 'kind', 'duty') && numberOf(part, 'opensAboveA') <= value * 1.3,
      { into: 'links', order: near('opensAboveA') },
    ),
    adjusts: 'opensAboveA',
    arrangement: true,
    smallerMeetsBoth: true,
    needlessWithDcdc: true,
  },
  'link.cable': {
    kind: 'wiring',
    label: valued(({ value }, q) => `Add cable resistance: ${q(value, 'm')} of 25 mm² one way in total`),
    takes: 'cable by the metre',
    hours: 2,
    effect: valued(resistanceCable),
    supply: valued(({ value }, _job, shelf) => cableByTheMetre(resistanceMm2, value * 2, shelf)),
    arrangement: true,
    needlessWithDcdc: true,
  },
  'link.unjoined': {
    kind: 'wiring',
    label: () => 'Disconnect the house bank from this alternator',
    takes: 'no part',
    hours: 0.5,
    effect: set(() => ({ kind: 'none' })),
    arrangement: true,
    needlessWithDcdc: true,
  },
  'link.larger': {
    kind: 'part',
    label: valued(({ value }, q) => `Fit a relay, isolator or switch of ${q(value, 'A')}`),
    takes: '1 part',
    hours: 1,
    effect: setValue('relayA'),
    wants: relay('Larger relay or isolator', (part, { value = 0 }) => numberOf(part, 'relayA') >= value, {}),
    needlessWithDcdc: true,
  },
  'link.low-loss-isolator': {
    kind: 'part',
    label: valued(({ value }, q) => `Fit a low-loss isolator (${q(value, 'V')} drop)`),
    takes: '1 part',
    hours: 1,
    effect: setValue('dropV'),
    needlessWithDcdc: true,
    wants: relay(
      'Low-loss isolator',
      (part, { value = 0 }) => is(part, 'kind', 'diode') && numberOf(part, 'dropV') <= value + 0.051,
    ),
  },
  'link.one-way': {
    kind: 'part',
    label: () => 'Fit a relay that closes from the starting side only',
    takes: 'setting or 1 part',
    hours: 1,
    effect: set(() => ({ bothWay: 'no' })),
    needlessWithDcdc: true,
    wants: relay('One-way relay', (part) => is(part, 'kind', 'vsr') && is(part, 'bothWay', 'no')),
  },
  'dcdc.add': {
    kind: 'part',
    takes: '1 part',
    hours: 3,
    label: valued(({ value, values }, q) =>
      joinText(
        `Fit a DC-DC charger of ${q(value, 'A')} `,
        values?.signal === 'voltage' ? 'that starts on voltage' : 'on an ignition signal',
      ),
    ),
    effect: set(
      valued(({ value, values }) => ({
        ...lithiumStages,
        signal: 'wire',
        ...values,
        kind: 'dcdc',
        ratedA: value,
      })),
    ),
    wants: sizedDcdc,
    arrangement: true,
    smallerMeetsBoth: true,
  },
  'dcdc.signal-wire': {
    kind: 'wiring',
    label: () => 'Run an ignition or alternator wire to its signal terminal',
    takes: 'wire',
    hours: 1,
    effect: set(() => ({ signal: 'wire' })),
  },
  'dcdc.lower-input': {
    kind: 'part',
    label: valued(({ value }, q) => `Fit a DC-DC charger that runs down to ${q(value, 'V')}`),
    takes: '1 part',
    hours: 2,
    effect: setValue('lowestInputV'),
    wants: lowInputDcdc,
  },
  'dcdc.move': {
    kind: 'place',
    label: () => 'Move the DC-DC to a cool, dry place',
    takes: 'cable and time, by survey',
    hours: 3,
    effect: set(() => ({ stands: 'cool' })),
    unseen: true,
  },
  'dcdc.right-voltages': {
    kind: 'part',
    label: ({ values }) => `Fit a DC-DC charger made for ${values?.inputV} V in, ${values?.outputV} V out`,
    takes: '1 part',
    hours: 2,
    effect: set(({ values = {} }) => values),
    wants: dcdcForVoltages,
  },
  'dcdc.isolated': {
    kind: 'part',
    label: () => 'Fit a DC-DC charger with isolated negatives',
    takes: '1 part',
    hours: 2,
    effect: set(() => ({ isolation: 'isolated' })),
    wants: isolatedDcdc,
  },
  'start.trickle': {
    kind: 'part',
    label: () => 'Trickle-charge the starting battery from the mains charger, the sun or the house bank',
    takes: '1 part',
    hours: 1,
    effect: set(() => ({ fedByCharger: 'yes' })),
    wants: 'Trickle charger',
  },
  'start.own-battery': {
    kind: 'part',
    label: () => 'Fit a separate lead-acid starting battery for the engine',
    takes: '2 parts',
    hours: 3,
    effect: set(() => ({ present: 'yes', chemistry: 'flooded', jumpSwitch: 'no' })),
    wants: 'Starting battery',
  },
  'start.keep-lead': {
    kind: 'part',
    label: () => 'Keep a lead-acid battery on its output and connect the house bank behind it',
    takes: '1 part and its cables',
    hours: 3,
    effect: keepLead,
    wants: 'Lead-acid battery',
  },
  'start.no-jump': {
    kind: 'wiring',
    label: () => 'Remove the jump switch',
    takes: 'no part',
    hours: 0.5,
    effect: set(() => ({ jumpSwitch: 'no' })),
  },
} as const satisfies Record<string, Remedy>

/** A lead battery on an alternator; a bank that hung straight on it is joined by a solenoid then. */
function keepLead(order: RemedyOrder, job: JobDocument): JobDocument {
  const { on } = order
  const own = { present: 'yes', chemistry: 'flooded', jumpSwitch: 'no' }
  const kept = set(({ values }) => ({ ...own, ...values }))(order, job)
  const of = partAt(job, on)?.part.from
  return partsOf(kept, 'links')
    .filter(({ part }) => part.from === of && valueOf(part, 'kind') === 'direct')
    .reduce((next, { path }) => withField(next, `${path}/kind`, assumed('solenoid')), kept)
}

const resistanceMm2 = 25

/** All of a link's cable as one run of 25 mm² with a fuse, of a length that holds the current down. */
function resistanceCable({ on, value }: ValuedOrder, job: JobDocument): JobDocument {
  const others = partsOf(job, 'conductors')
    .filter((cable) => cable.part.of === on)
    .reduce((next, cable) => withoutPart(next, cable.path), job)
  const values = {
    lengthM: value,
    areaMm2: resistanceMm2,
    insulationC: '105',
    fuseKind: 'class-t',
    fuseA: 125,
    farFuseKind: 'class-t',
    farFuseA: 125,
  }
  const { job: next, path } = withNewPart(others, 'conductors', { of: on })
  return withAssumed(next, path, values)
}
