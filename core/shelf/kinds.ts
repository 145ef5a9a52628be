import { fieldOf } from '#core/collections/held'
import {
  choice,
  partKinds,
  quantity,
  systemVoltages,
  volts,
  yesNo,
  type Field,
  type Fields,
  type Known,
  type PartKindId,
} from '#core/job/fields'
import { studs } from '#core/job/parts/network'
import { fuseFamilies } from '#core/job/parts/wiring'

/** A kind of part on the shop's shelf. */
interface ShelfKind {
  readonly title: string
  readonly one: string
  readonly fields: Fields
  /** The kind of part of a job whose values it gives; null for parts that are only listed and priced. */
  readonly fills: PartKindId | null
  /** Changes to a part of a job besides the values of the data sheet. */
  readonly sets?: Readonly<Record<string, string>>
  /** The fields that tell one from another in a list. */
  readonly brief: readonly string[]
}

const sheet = 'Maker’s data sheet.'
const bulk = {
  weightKg: quantity('Weight', 'kg', 0.1, [0, 500], [0.1, 20], sheet),
  widthMm: quantity('Width', 'mm', 5, [1, 3000], [30, 400], sheet),
  depthMm: quantity('Depth', 'mm', 5, [1, 3000], [30, 300], sheet),
  heightMm: quantity('Height', 'mm', 5, [1, 3000], [20, 300], sheet),
  price: quantity('Price', 'money', 1, [0, 1_000_000], [5, 1500], 'Price list.'),
} satisfies Fields

function without<F extends Fields, K extends keyof F>(fields: F, names: readonly K[]): Omit<F, K> {
  return Object.fromEntries(Object.entries(fields).filter(([name]) => !names.includes(name as K))) as Omit<
    F,
    K
  >
}
function only<F extends Fields, K extends keyof F>(fields: F, names: readonly K[]): Pick<F, K> {
  return Object.fromEntries(
    names.map((name) => [name, { ...fieldOf(fields, name), when: undefined }]),
  ) as unknown as Pick<F, K>
}

const stages = [
  'ratedA',
  'currentLimit',
  'profile',
  'absorptionV',
  'absorptionH',
  'floatMode',
  'floatV',
  'equaliseStage',
  'equaliseV',
  'compensation',
  'compensationMv',
  'absorptionLeastV',
  'absorptionMostV',
  'floatLeastV',
  'floatMostV',
] as const
const { candidate, chargers, links, solar, inverters, conductors } = {
  candidate: partKinds.candidate.fields,
  chargers: partKinds.chargers.fields,
  links: partKinds.links.fields,
  solar: partKinds.solar.fields,
  inverters: partKinds.inverters.fields,
  conductors: partKinds.conductors.fields,
}

/** Every kind of part on the shelf. Its fields are those of the survey where a part gives values to a job. */
export const shelfKinds = {
  batteries: {
    title: 'Batteries',
    one: 'Battery',
    fields: without(candidate, ['series', 'parallel', 'layout', 'restingCurve']),
    fills: 'candidate',
    brief: ['ahEach', 'nominalV', 'continuousA', 'weightKg'],
  },
  chargers: {
    title: 'Mains chargers',
    one: 'Mains charger',
    fields: {
      ...only(chargers, [...stages, 'outputs', 'efficiency', 'powerFactor', 'holdsFuseBlock']),
      nominalV: choice('Made for', systemVoltages, sheet),
      ...bulk,
    },
    fills: 'chargers',
    brief: ['ratedA', 'profile', 'absorptionV', 'equaliseStage'],
  },
  dcdc: {
    title: 'DC-DC chargers',
    one: 'DC-DC charger',
    fills: 'links',
    sets: { kind: 'dcdc' },
    brief: ['ratedA', 'inputV', 'outputV', 'isolation'],
    fields: {
      ...only(links, [
        'inputV',
        'outputV',
        'isolation',
        'signal',
        ...stages,
        'lowestInputV',
        'solarMostV',
        'solarMostW',
        'engineSpace',
      ]),
      ...bulk,
    },
  },
  controllers: {
    title: 'Solar controllers',
    one: 'Solar controller',
    fields: { ...only(solar, ['controller', 'maxPvV', ...stages]), ...bulk },
    fills: 'solar',
    brief: ['ratedA', 'controller', 'maxPvV', 'profile'],
  },
  relays: {
    title: 'Relays and isolators',
    one: 'Relay',
    fields: {
      ...only(links, [
        'kind',
        'closesV',
        'opensV',
        'delayS',
        'bothWay',
        'opensAboveA',
        'offTimeS',
        'dropV',
        'relayA',
      ]),
      ...bulk,
    },
    fills: 'links',
    brief: ['kind', 'relayA', 'closesV', 'opensV'],
  },
  regulators: {
    title: 'Alternator regulators',
    one: 'Regulator',
    fields: {
      nominalV: choice('Made for', systemVoltages, sheet),
      regulatorV: volts('Highest setting', [14, 15], sheet),
      temperatureSensor: yesNo('Temperature sensor for the alternator', sheet),
      chargeStopInput: yesNo('Input for a charge-stop signal', sheet),
      ...bulk,
    },
    fills: 'alternators',
    sets: { regulator: 'external' },
    brief: ['nominalV', 'regulatorV', 'temperatureSensor'],
  },
  monitors: {
    title: 'Battery monitors',
    one: 'Battery monitor',
    fields: {
      shuntA: quantity('Shunt rating', 'A', 10, [10, 5000], [100, 500], sheet),
      alarm: yesNo('Alarm output', sheet),
      starterVoltage: yesNo('Also monitors the starting battery', sheet),
      phone: yesNo('Phone link', sheet),
      ...bulk,
    },
    fills: 'use',
    sets: { monitor: 'shunt' },
    brief: ['shuntA', 'alarm', 'phone'],
  },
  fuses: {
    title: 'Fuses and breakers',
    one: 'Fuse',
    fields: {
      fuseKind: choice('Family', fuseFamilies, sheet),
      fuseA: quantity('Rating', 'A', 5, [1, 2000], [30, 300], 'Print.'),
      fuseAicA: quantity('Interrupts', 'A', 500, [100, 200_000], [1000, 20_000], sheet),
      mostV: quantity('Largest voltage', 'V', 1, [12, 1000], [32, 125], sheet),
      ...bulk,
    },
    fills: 'conductors',
    brief: ['fuseKind', 'fuseA', 'fuseAicA'],
  },
  switches: {
    title: 'Battery switches',
    one: 'Battery switch',
    fields: {
      continuousA: quantity('Continuous current', 'A', 10, [10, 3000], [100, 400], sheet),
      momentA: quantity('Current for 10 s', 'A', 50, [10, 5000], [500, 1200], sheet),
      poles: quantity('Poles', '', 1, [1, 4], [1, 2], sheet),
      remote: yesNo('Remote controlled', sheet),
      ...bulk,
    },
    fills: null,
    brief: ['continuousA', 'momentA', 'remote'],
  },
  conductors: {
    title: 'Cable',
    one: 'Cable',
    fields: {
      ...only(conductors, ['areaMm2', 'material', 'insulationC']),
      pricePerM: quantity('Price per metre', 'money', 0.5, [0, 1000], [1, 40], 'Price list.'),
      kgPerM: quantity('Weight per metre', 'kg', 0.01, [0, 20], [0.05, 1.5], sheet),
    },
    fills: 'conductors',
    brief: ['areaMm2', 'insulationC', 'pricePerM'],
  },
  lugs: {
    title: 'Lugs',
    one: 'Lug',
    fields: {
      ...only(conductors, ['areaMm2']),
      stud: choice('Stud', studs, 'Print on the lug.'),
      price: bulk.price,
    },
    fills: null,
    brief: ['areaMm2', 'stud'],
  },
  sleeves: {
    title: 'Heat-shrink',
    one: 'Heat-shrink sleeve',
    fields: { ...only(conductors, ['areaMm2']), price: bulk.price },
    fills: null,
    brief: ['areaMm2'],
  },
  bars: {
    title: 'Bus bars',
    one: 'Bus bar',
    fields: {
      barA: quantity('Continuous current', 'A', 10, [10, 3000], [100, 600], sheet),
      ways: quantity('Studs', '', 1, [1, 60], [4, 12], 'Count them.'),
      ...bulk,
    },
    fills: null,
    brief: ['barA', 'ways'],
  },
  connectors: {
    title: 'Plugs and connectors',
    one: 'Connector',
    fields: {
      ...only(conductors, ['connectorA', 'connectorMostMm2']),
      poles: quantity('Poles', '', 1, [1, 13], [1, 7], sheet),
      ...bulk,
    },
    fills: 'conductors',
    brief: ['connectorA', 'connectorMostMm2', 'poles'],
  },
  inverters: {
    title: 'Inverters',
    one: 'Inverter',
    fields: {
      ...only(inverters, [
        'continuousW',
        'surgeW',
        'surgeS',
        'efficiency',
        'idleW',
        'cutOffV',
        'transferSwitch',
      ]),
      nominalV: choice('Made for', systemVoltages, sheet),
      ...bulk,
    },
    fills: 'inverters',
    brief: ['continuousW', 'surgeW', 'idleW'],
  },
  heaters: {
    title: 'Heating pads',
    one: 'Heating pad',
    fields: {
      heaterW: quantity('Power', 'W', 5, [1, 1000], [20, 150], sheet),
      heaterStartC: quantity('Thermostat starts at', '°C', 1, [-20, 20], [0, 5], sheet),
      nominalV: choice('Made for', systemVoltages, sheet),
      ...bulk,
    },
    fills: 'candidate',
    sets: { heater: 'yes' },
    brief: ['heaterW', 'heaterStartC'],
  },
} as const satisfies Record<string, ShelfKind>

export type ShelfKindId = keyof typeof shelfKinds
export const shelfKindIds = Object.keys(shelfKinds) as ShelfKindId[]
export const shelfKind = (id: ShelfKindId): ShelfKind => shelfKinds[id]

export type ShelfValues = Readonly<Record<string, number | string>>

/** One part on the shelf, in one of its versions. */
export interface ShelfPart {
  readonly kind: ShelfKindId
  readonly code: string
  readonly version: number
  readonly name: string
  readonly maker: string
  readonly values: ShelfValues
}

/** The kinds of the shelf that give values to a kind of part of a job. */
export const shelfKindsFor = (part: PartKindId): ShelfKindId[] =>
  shelfKindIds.filter((id) => shelfKind(id).fills === (part === 'alternatives' ? 'candidate' : part))

/**
 * The data that a part of a job takes from a part of the shelf: its values as maker's data, its name, and its
 * version. A part that gives only some values (a fuse for a cable) leaves name and reference unchanged.
 */
export function valuesFromShelf(
  part: Pick<ShelfPart, 'kind' | 'code' | 'version' | 'name' | 'values'>,
  into: PartKindId,
): Readonly<Record<string, unknown>> {
  const { fills, sets = {} } = shelfKind(part.kind)
  const fields: Fields = partKinds[into].fields
  const whole =
    fills !== 'use' &&
    fills !== 'alternators' &&
    !['fuses', 'connectors', 'heaters', 'conductors'].includes(part.kind)
  // A pad under a battery has a weight and a price of its own; those of the battery stay.
  const isOfThePart = (name: string): boolean => whole || (!Object.hasOwn(bulk, name) && name !== 'nominalV')
  const given = Object.fromEntries(
    Object.entries({ ...part.values, ...sets })
      .filter(([name]) => Object.hasOwn(fields, name) && isOfThePart(name))
      .map(([name, value]): [string, Known<unknown>] => [name, { value, how: 'maker' }]),
  )
  return whole ? { ...given, name: part.name, shelf: { code: part.code, version: part.version } } : given
}

/** Fields of a kind in the order of its table, for forms and lists. */
export const shelfFields = (kind: ShelfKindId): [string, Field][] => Object.entries(shelfKind(kind).fields)

/** A battery of the shelf as a candidate: this many side by side, none in series. */
export function candidateFromShelf(
  part: Parameters<typeof valuesFromShelf>[0],
  parallel = 1,
): Readonly<Record<string, unknown>> {
  const count = (value: number) => ({ value, how: 'assumed' }) as const
  return { ...valuesFromShelf(part, 'candidate'), series: count(1), parallel: count(parallel) }
}
