import {
  asAssumed,
  emptyJob,
  withAssumed,
  withNewPart,
  type AnyPart,
  type JobDocument,
  type JobHead,
} from './document'
import type { ManyKindId, OneKindId } from './fields'

type Values = Readonly<Record<string, number | string>>

/** A usual vehicle or vessel to start from. Everything in it is assumed, and waits to be corrected. */
export interface Typical {
  readonly title: string
  readonly about: string
  readonly job: (number: string) => JobDocument
}

interface Recipe {
  readonly head: Partial<JobHead>
  readonly one: Readonly<Partial<Record<OneKindId, Values>>>
  readonly many: readonly (readonly [kind: ManyKindId, values: Values, own?: AnyPart])[]
}

function build(title: string, about: string, { head, one, many }: Recipe): Typical {
  return {
    title,
    about,
    job(number) {
      let job: JobDocument = { ...emptyJob(number, `New ${title.charAt(0).toLowerCase()}${title.slice(1)}`) }
      job = { ...job, job: { ...job.job, ...head } }
      for (const [kind, values] of Object.entries(one)) job = withAssumed(job, kind, values)
      job = { ...job, startingBatteries: {} }
      return many.reduce(
        (next, [kind, values, own = {}]) => withNewPart(next, kind, { ...own, ...asAssumed(values) }).job,
        job,
      )
    },
  }
}

const leadCharger = {
  profile: 'fixed',
  absorptionV: 14.4,
  absorptionH: 3,
  floatMode: 'on',
  floatV: 13.5,
  equaliseStage: 'none',
  compensation: 'none',
  feeds: 'house',
}
const fromAlternator = { from: 'alternators/alternator-1' }
const ofLink = { of: 'links/link-1' }
const ofCharger = { of: 'chargers/charger-1' }
const named = (name: string, own: AnyPart = {}): AnyPart => ({ name, ...own })
const load = (name: string, amps: number, hours: number, more: Values = {}) =>
  ['loads', { supply: 'dc', amps, hours, ...more }, { name }] as const
const cable = (lengthM: number, areaMm2: number, fuseA: number, of: AnyPart) =>
  [
    'conductors',
    {
      lengthM,
      areaMm2,
      returnBy: 'cable',
      insulationC: '70',
      fuseKind: 'terminal-block',
      fuseA,
    },
    of,
  ] as const
const lights = ['loads', { supply: 'dc', amps: 3, hours: 5, period: 'evening' }, { name: 'Lights' }] as const
const fridge = [
  'loads',
  { supply: 'dc', amps: 4.5, hours: 24, duty: 35, surge: 3 },
  { name: 'Fridge' },
] as const

/** Vehicles and vessels a shop sees most, by age and kind of wiring. */
export const typicals = {
  cruiser: build('Sailing cruiser', '12 V, two service batteries, battery switch, shore charger', {
    head: { craft: 'vessel', usePattern: 'stays' },
    one: {
      use: { daysAway: 4, mixed: 'replaced', negatives: 'common' },
      houseBank: {
        chemistry: 'flooded',
        nominalV: '12',
        series: 1,
        parallel: 2,
        ahEach: 110,
        ageYears: 5,
        layout: 'ladder',
      },
      place: { where: 'cabin', coldestC: 2, hottestC: 35, ingress: 'damp' },
    },
    many: [
      [
        'startingBatteries',
        { present: 'yes', chemistry: 'flooded', ah: 80, standbyA: 0.02, fedByCharger: 'yes' },
        fromAlternator,
      ],
      [
        'alternators',
        {
          nominalV: '12',
          ratedA: 80,
          regulator: 'fixed',
          regulatorV: 14.2,
          vehicleDrawA: 4,
          driveHours: 1.5,
        },
      ],
      ['links', { kind: 'switch' }, named('Battery switch', fromAlternator)],
      ['chargers', { ...leadCharger, ratedA: 25, hours: 8 }, named('Shore charger')],
      [
        'conductors',
        { lengthM: 4, areaMm2: 35, returnBy: 'cable' },
        named('Battery switch to house bank', ofLink),
      ],
      lights,
      fridge,
    ],
  }),
  workboat: build('Workboat', '12 V, diode isolator, winch, moves daily', {
    head: { craft: 'vessel', usePattern: 'daily' },
    one: {
      use: { daysAway: 1, mixed: 'replaced', monitor: 'voltage', warns: 'no', negatives: 'common' },
      houseBank: {
        chemistry: 'flooded',
        nominalV: '12',
        series: 1,
        parallel: 2,
        ahEach: 110,
        ageYears: 4,
        weightEachKg: 29,
        layout: 'ladder',
      },
      place: { where: 'locker', coldestC: 2, hottestC: 35, ventilation: 'vented', ingress: 'damp' },
    },
    many: [
      [
        'startingBatteries',
        {
          present: 'yes',
          chemistry: 'flooded',
          ah: 100,
          cca: 700,
          standbyA: 0.03,
          fedByCharger: 'no',
          jumpSwitch: 'no',
        },
        fromAlternator,
      ],
      [
        'alternators',
        {
          nominalV: '12',
          ratedA: 90,
          regulator: 'fixed',
          regulatorV: 14.4,
          vehicleDrawA: 5,
          idleRpm: 750,
          cruiseRpm: 2000,
          pulleyRatio: 2.4,
          driveHours: 5,
        },
      ],
      ['links', { kind: 'diode', dropV: 0.7 }, named('Diode isolator', fromAlternator)],
      ['chargers', { ...leadCharger, currentLimit: 'fixed', ratedA: 20, hours: 8 }, named('Shore charger')],
      load('Deck winch', 80, 0.5, { period: 'morning', surge: 2.5 }),
      load('Radio and plotter', 4, 8, { essential: 'yes' }),
      load('Navigation lights', 2.5, 4, { essential: 'yes' }),
      load('Wash-down pump', 12, 0.5, { together: 'no' }),
      load('Bilge pump', 8, 0.2, { together: 'no', essential: 'yes' }),
      load('Fridge', 4.5, 24, { duty: 35, surge: 3 }),
      cable(3, 10, 40, named('Charger to house bank', ofCharger)),
      cable(4, 35, 100, named('Isolator to house bank', ofLink)),
      ['devices', { kind: 'gauge', tripV: 12.2 }, named('Wheelhouse gauge')],
    ],
  }),
  camperOld: build('Camper van, older', '12 V, fixed alternator, voltage-sensed relay, solar', {
    head: { craft: 'vehicle', usePattern: 'stays' },
    one: {
      use: { daysAway: 3, mixed: 'replaced', negatives: 'common' },
      houseBank: { chemistry: 'agm', nominalV: '12', series: 1, parallel: 1, ahEach: 100, ageYears: 5 },
      place: { where: 'cabin', coldestC: 0, hottestC: 40, ingress: 'dry' },
    },
    many: [
      [
        'startingBatteries',
        { present: 'yes', chemistry: 'calcium', ah: 80, standbyA: 0.03, fedByCharger: 'no' },
        fromAlternator,
      ],
      [
        'alternators',
        {
          nominalV: '12',
          ratedA: 110,
          regulator: 'fixed',
          regulatorV: 14.3,
          vehicleDrawA: 20,
          driveHours: 2,
        },
      ],
      ['links', { kind: 'vsr', closesV: 13.3, opensV: 12.8 }, fromAlternator],
      [
        'solar',
        {
          panelW: 150,
          openCircuitV: 22,
          series: 1,
          parallel: 1,
          controller: 'pwm',
          maxPvV: 28,
          ratedA: 20,
          profile: 'fixed',
          absorptionV: 14.4,
          floatMode: 'on',
          floatV: 13.6,
          equaliseStage: 'none',
          compensation: 'none',
        },
      ],
      ['conductors', { lengthM: 4, areaMm2: 16, returnBy: 'chassis' }, ofLink],
      lights,
      fridge,
    ],
  }),
  camperNew: build('Camper van, recent', '12 V, computer-controlled alternator, solar', {
    head: { craft: 'vehicle', usePattern: 'stays' },
    one: {
      use: { daysAway: 3, mixed: 'replaced', negatives: 'common' },
      houseBank: { chemistry: 'agm', nominalV: '12', series: 1, parallel: 1, ahEach: 100, ageYears: 3 },
      place: { where: 'cabin', coldestC: 0, hottestC: 40, ingress: 'dry' },
    },
    many: [
      [
        'startingBatteries',
        { present: 'yes', chemistry: 'agm', ah: 90, standbyA: 0.06, fedByCharger: 'no', monitored: 'yes' },
        fromAlternator,
      ],
      [
        'alternators',
        { nominalV: '12', ratedA: 180, regulator: 'computer', vehicleDrawA: 35, driveHours: 2 },
      ],
      ['links', { kind: 'vsr', closesV: 13.3, opensV: 12.8 }, fromAlternator],
      ['conductors', { lengthM: 4, areaMm2: 16, returnBy: 'chassis' }, ofLink],
      lights,
      fridge,
    ],
  }),
  bus: build('Bus or lorry', '24 V chassis, 12 V house, DC-DC charger', {
    head: { craft: 'vehicle', usePattern: 'plugged' },
    one: {
      use: { daysAway: 1, mixed: 'replaced', negatives: 'common' },
      houseBank: { chemistry: 'agm', nominalV: '12', series: 1, parallel: 2, ahEach: 180, ageYears: 5 },
      place: { where: 'cabin', coldestC: 5, hottestC: 38, ingress: 'dry' },
    },
    many: [
      [
        'startingBatteries',
        { present: 'yes', chemistry: 'flooded', ah: 180, standbyA: 0.1, fedByCharger: 'no' },
        fromAlternator,
      ],
      [
        'alternators',
        {
          nominalV: '24',
          ratedA: 120,
          regulator: 'fixed',
          regulatorV: 28.2,
          vehicleDrawA: 30,
          driveHours: 2,
        },
      ],
      [
        'links',
        {
          kind: 'dcdc',
          inputV: '24',
          outputV: '12',
          signal: 'wire',
          ratedA: 40,
          profile: 'adjustable',
          absorptionV: 14.4,
          floatMode: 'on',
          floatV: 13.5,
          equaliseStage: 'none',
          compensation: 'none',
        },
        fromAlternator,
      ],
      ['chargers', { ...leadCharger, ratedA: 40, hours: 12 }],
      ['inverters', { continuousW: 2000 }],
      lights,
    ],
  }),
  trailer: build('Trailer or caravan', '12 V, fed by the tow vehicle through a plug, converter', {
    head: { craft: 'trailer', usePattern: 'plugged' },
    one: {
      use: { daysAway: 2, mixed: 'replaced', negatives: 'common' },
      houseBank: { chemistry: 'flooded', nominalV: '12', series: 1, parallel: 1, ahEach: 100, ageYears: 4 },
      place: { where: 'locker', coldestC: -5, hottestC: 40, ingress: 'damp' },
    },
    many: [
      [
        'startingBatteries',
        {
          present: 'yes',
          chemistry: 'calcium',
          ah: 80,
          standbyA: 0.03,
          fedByCharger: 'no',
          jumpSwitch: 'no',
        },
        fromAlternator,
      ],
      [
        'alternators',
        {
          nominalV: '12',
          ratedA: 150,
          regulator: 'fixed',
          regulatorV: 14.3,
          vehicleDrawA: 25,
          driveHours: 2,
        },
        { name: 'Tow vehicle' },
      ],
      ['links', { kind: 'solenoid' }, fromAlternator],
      ['conductors', { lengthM: 8, areaMm2: 6, returnBy: 'cable', connectorA: 30 }, ofLink],
      [
        'chargers',
        {
          ...leadCharger,
          kind: 'converter',
          holdsFuseBlock: 'yes',
          profile: 'automatic',
          ratedA: 45,
          hours: 10,
        },
      ],
      lights,
      fridge,
    ],
  }),
  motorcycle: build('Motorcycle', '12 V, one battery that starts the engine', {
    head: { craft: 'motorcycle', usePattern: 'laidUp' },
    one: {
      use: { daysAway: 1, dcAtOnceA: 8, dailyAh: 2, layupWeeks: 16 },
      houseBank: { chemistry: 'agm', nominalV: '12', series: 1, parallel: 1, ahEach: 18, ageYears: 4 },
      place: { where: 'locker', coldestC: 2, hottestC: 45, ingress: 'damp' },
      candidate: { purpose: 'starter' },
    },
    many: [
      ['startingBatteries', { present: 'no', cca: 230, standbyA: 0.005, fedByCharger: 'no' }, fromAlternator],
      [
        'alternators',
        {
          nominalV: '12',
          ratedA: 30,
          regulator: 'fixed',
          regulatorV: 14.3,
          vehicleDrawA: 8,
          idleRpm: 1200,
          cruiseRpm: 4500,
          pulleyRatio: 1,
          driveHours: 1,
        },
        { name: 'Charging system' },
      ],
      ['links', { kind: 'direct' }, fromAlternator],
      ['chargers', { ...leadCharger, ratedA: 4, hours: 8 }],
    ],
  }),
} as const satisfies Record<string, Typical>

export type TypicalId = keyof typeof typicals
