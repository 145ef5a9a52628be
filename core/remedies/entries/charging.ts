import { joinText } from '#core/units/format'
import { partAt, withField, type JobDocument, type PartPath } from '#core/job/document'
import type { Known } from '#core/job/fields'
import { assumed, lithiumStages, set, setValue, valued, type Remedy } from '../remedy'
import { controller, unitInPlace } from '../wants'

const minutes = (count: number): number => count / 60

/** Remedies of chargers, solar controllers and other sources. */
export const charging = {
  'charger.equalise-off': {
    kind: 'setting',
    label: () => 'Switch equalise off',
    takes: 'setting, no part',
    hours: minutes(5),
    effect: set(() => ({ equaliseStage: 'off' })),
  },
  'charger.set-equalise': {
    kind: 'setting',
    label: valued(({ value }, q) => `Set its equalise stage to ${q(value, 'V')}`),
    takes: 'setting, no part',
    hours: minutes(10),
    effect: setValue('equaliseV'),
  },
  'charger.set-absorption': {
    kind: 'setting',
    label: valued(({ value }, q) => `Set absorption to ${q(value, 'V')}`),
    takes: 'setting, no part',
    hours: minutes(5),
    effect: setValue('absorptionV'),
    adjusts: 'absorptionV',
  },
  'charger.set-all': {
    kind: 'setting',
    takes: 'setting, no part',
    hours: minutes(10),
    label: valued(({ value, values }, q) =>
      joinText(
        `Set absorption to ${q(value, 'V')}, float `,
        typeof values?.floatV === 'number' ? `to ${q(values.floatV, 'V')}` : 'off',
      ),
    ),
    effect: set(({ values = {} }) => values),
  },
  'charger.make-good': {
    kind: 'part',
    label: () => 'Replace its other functions: fuse block, second output, inverter',
    takes: '1 to 2 parts',
    hours: 2,
    effect: set(() => ({ holdsFuseBlock: 'no', feeds: 'house', kind: 'charger' })),
    wants: 'Fuse block or second charger',
  },
  'charger.house-only': {
    kind: 'wiring',
    label: () => 'Disconnect the starting battery from this charger',
    takes: 'no part; fit a separate charger for the starting battery if it stands for long',
    hours: 0.5,
    effect: set(() => ({ feeds: 'house' })),
  },
  'charger.use-lithium-profile': {
    kind: 'setting',
    label: () => 'Set its lithium profile',
    takes: 'setting, no part; measure it afterwards',
    hours: minutes(10),
    effect: set(valued(({ value }) => ({ ...lithiumStages, absorptionV: value }))),
  },
  'charger.float-off': {
    kind: 'setting',
    label: () => 'Switch float off',
    takes: 'setting, no part',
    hours: minutes(5),
    effect: set(() => ({ floatMode: 'off' })),
  },
  'charger.set-float': {
    kind: 'setting',
    label: valued(({ value }, q) => `Set float to ${q(value, 'V')}`),
    takes: 'setting, no part',
    hours: minutes(5),
    effect: setValue('floatV'),
    adjusts: 'floatV',
  },
  'charger.compensation-off': {
    kind: 'setting',
    label: () => 'Switch temperature compensation off',
    takes: 'setting or unplug its sensor',
    hours: minutes(5),
    effect: set(() => ({ compensation: 'off' })),
  },
  'charger.limit-current': {
    kind: 'setting',
    label: valued(({ value }, q) => `Set its current limit to ${q(value, 'A')}`),
    takes: 'setting, no part',
    hours: minutes(5),
    effect: setValue('ratedA'),
    adjusts: 'ratedA',
    smallerMeetsBoth: true,
  },
  'charger.replace': {
    kind: 'part',
    label: valued(({ value }, q) => `Replace it with a lithium unit of ${q(value, 'A')}`),
    takes: '1 part',
    hours: 1.5,
    effect: set(valued(({ value, values }) => ({ ...lithiumStages, ...values, ratedA: value }))),
    wants: unitInPlace,
    arrangement: true,
    smallerMeetsBoth: true,
    namesAnswer: true,
  },
  'charger.top-up': {
    kind: 'paper',
    label: () => 'Accept it, and charge to full from another source once a month',
    takes: 'a line on the customer’s paper',
    hours: 0,
    effect: null,
    needlessWithDcdc: true,
  },
  'solar.own-controller': {
    kind: 'part',
    label: () => 'Fit a separate controller for the panels',
    takes: '1 part',
    hours: 1.5,
    effect: set(() => ({ through: 'own' })),
    wants: controller(),
  },
  'solar.string-fuses': {
    kind: 'part',
    label: valued(({ value }, q) => `Fit a ${q(value, 'A')} fuse in each string of panels`),
    takes: '1 fuse and its holder a string',
    hours: 1,
    effect: set(() => ({ stringFuses: 'yes' })),
    wants: 'String fuses with their holders',
  },
  'solar.in-parallel': {
    kind: 'wiring',
    label: () => 'Wire the panels in parallel',
    takes: 'connectors',
    hours: 1,
    effect: ({ on }, job) => panelsInParallel(job, on),
  },
  'solar.controller': {
    kind: 'part',
    label: valued(({ value }, q) => `Fit a controller for ${q(value, 'V')} of panels or more`),
    takes: '1 part',
    hours: 1.5,
    effect: setValue('maxPvV'),
    wants: controller('maxPvV'),
  },
  'solar.larger': {
    kind: 'part',
    label: valued(({ value }, q) => `Fit a controller of ${q(value, 'A')}`),
    takes: '1 part',
    hours: 1.5,
    effect: setValue('ratedA'),
    wants: controller('ratedA'),
  },
  'source.diversion': {
    kind: 'part',
    label: () => 'Fit a diversion load with a separate switch',
    takes: '2 parts',
    hours: 3,
    effect: set(() => ({ onDisconnect: 'diversion' })),
    wants: 'Diversion load with its switch',
  },
  'source.regulator': {
    kind: 'part',
    label: valued(({ value }, q) => `Set its regulator to ${q(value, 'V')}`),
    takes: 'setting or 1 part',
    hours: 1,
    effect: setValue('regulatorV'),
    wants: 'Regulator',
  },
  'use.charge-more': {
    kind: 'paper',
    label: valued(({ value }, q) => `Add ${q(value, 'Ah')} of charge a day: solar, driving or a generator`),
    takes: 'depends on the source',
    hours: 0,
    effect: null,
  },
} as const satisfies Record<string, Remedy>

function panelsInParallel(job: JobDocument, path: PartPath): JobDocument {
  const part = partAt(job, path)?.part as Readonly<Record<string, Known<number> | undefined>> | undefined
  const strings = (part?.series?.value ?? 1) * (part?.parallel?.value ?? 1)
  return withField(withField(job, `${path}/series`, assumed(1)), `${path}/parallel`, assumed(strings))
}
