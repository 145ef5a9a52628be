import type { ShelfPart } from '#core/shelf/kinds'
import type { System } from '#core/system/system'
import type { RemedyOrder, Want } from './remedy'

// Search conditions of remedies on the shelf.

export const numberOf = (part: ShelfPart, name: string): number => Number(part.values[name] ?? NaN)
export const is = (part: ShelfPart, name: string, value: string): boolean => part.values[name] === value
export const cheap = (part: ShelfPart): number => numberOf(part, 'price')
/** The largest one up to the value of the remedy first, then the nearest one above. */
const upTo =
  (name: string) =>
  (part: ShelfPart, { value = 0 }: RemedyOrder): number => {
    const over = numberOf(part, name) - value
    return over <= 0 ? -over : 1e6 + over
  }
/** Nearest to the value of the remedy first. */
export const near =
  (name: string) =>
  (part: ShelfPart, { value = 0 }: RemedyOrder): number =>
    Math.abs(numberOf(part, name) - value)
export const isLithium = (part: ShelfPart): boolean =>
  is(part, 'profile', 'lithium') || is(part, 'profile', 'adjustable')
const house = ({ bank }: System): string => String(bank.nominalV)
const forHouse = (part: ShelfPart, system: System): boolean => is(part, 'nominalV', house(system))
const intoHouse = (part: ShelfPart, system: System): boolean => is(part, 'outputV', house(system))
const fromInput = (part: ShelfPart, { values }: RemedyOrder): boolean =>
  is(part, 'inputV', String(values?.inputV))
/** Whether a DC-DC takes the voltage of the alternator of the link in whose place it comes. */
function fromAlternator(part: ShelfPart, { on }: RemedyOrder, { lanes }: System): boolean {
  const lane = lanes.find((one) => one.kind === 'alternator' && one.link.$path === on)
  return lane?.kind !== 'alternator' || is(part, 'inputV', lane.alternator.nominalV)
}
const bearable = (part: ShelfPart, { bank }: System): boolean => numberOf(part, 'ratedA') <= bank.largestA

export const sizedDcdc: Want = {
  kind: 'dcdc',
  into: 'links',
  otherwise: 'DC-DC charger',
  order: near('ratedA'),
  fits: (part, order, system) => fromInput(part, order) && intoHouse(part, system) && bearable(part, system),
}
export const dcdcForVoltages: Want = {
  kind: 'dcdc',
  into: 'links',
  otherwise: 'DC-DC charger',
  fits: (part, order, system) => fromInput(part, order) && intoHouse(part, system),
}
export const isolatedDcdc: Want = {
  kind: 'dcdc',
  into: 'links',
  otherwise: 'Isolated DC-DC charger',
  fits: (part, order, system) =>
    is(part, 'isolation', 'isolated') && fromAlternator(part, order, system) && intoHouse(part, system),
}
export const lowInputDcdc: Want = {
  kind: 'dcdc',
  into: 'links',
  otherwise: 'DC-DC charger with a low input limit',
  fits: (part, order, system) =>
    numberOf(part, 'lowestInputV') <= (order.value ?? 0) &&
    fromAlternator(part, order, system) &&
    intoHouse(part, system),
}
export const dcdcBetween: Want = {
  kind: 'dcdc',
  fills: { field: 'betweenA', from: 'ratedA' },
  otherwise: 'DC-DC charger',
  fits: (part, _order, system) => is(part, 'inputV', house(system)) && intoHouse(part, system),
}
const lithiumCharger: Want = {
  kind: 'chargers',
  into: 'chargers',
  otherwise: 'Lithium charger',
  order: upTo('ratedA'),
  fits: (part, _order, system) => isLithium(part) && forHouse(part, system) && bearable(part, system),
}
const anotherDcdc: Want = {
  kind: 'dcdc',
  into: 'links',
  otherwise: 'DC-DC charger',
  order: near('ratedA'),
  fits: (part, order, system) => fromAlternator(part, order, system) && intoHouse(part, system),
}
/** Another unit of the kind it takes the place of: a charger, a DC-DC, a solar controller. */
export function unitInPlace({ on }: RemedyOrder): Want {
  if (on.startsWith('solar/')) return controller()
  return on.startsWith('links/') ? anotherDcdc : lithiumCharger
}

/** A solar controller for lithium. @param bears required limit */
export const controller = (bears?: 'maxPvV' | 'ratedA'): Want => ({
  kind: 'controllers',
  into: 'solar',
  otherwise: 'Solar controller',
  fits: (part, { value = 0 }) => isLithium(part) && (bears === undefined || numberOf(part, bears) >= value),
})
/**
 * A relay or isolator.
 * @param into whether it takes the place of the link, with the values of its data sheet
 */
export const relay = (
  otherwise: string,
  fits: Want['fits'],
  more: Partial<Want> = { into: 'links' },
): Want => ({ kind: 'relays', otherwise, fits, ...more })

export const regulator = (otherwise: string, sensor: boolean): Want => ({
  kind: 'regulators',
  otherwise,
  fits: (part) => !sensor || is(part, 'temperatureSensor', 'yes'),
})
export const heatingPad: Want = {
  kind: 'heaters',
  into: 'candidate',
  otherwise: 'Heating pad with thermostat',
  fits: (part, _order, system) => forHouse(part, system),
}
export const shuntMonitor: Want = {
  kind: 'monitors',
  fills: { field: 'shuntA', from: 'shuntA' },
  otherwise: 'Shunt monitor with an alarm',
  fits: (part, _order, { bank }) => is(part, 'alarm', 'yes') && numberOf(part, 'shuntA') >= bank.continuousA,
}
/** A fuse of a rating, of the families that stand at a battery. */
export const fuseOfSize: Want = {
  kind: 'fuses',
  otherwise: 'Fuse with its holder',
  fits: (part, { value = 0, values }) =>
    numberOf(part, 'fuseA') === value &&
    (values?.fuseKind === undefined || is(part, 'fuseKind', String(values.fuseKind))) &&
    !is(part, 'fuseKind', 'blade') &&
    !is(part, 'fuseKind', 'maxi-blade'),
}
export const largerPlug: Want = {
  kind: 'connectors',
  otherwise: 'Two-pole plug and socket',
  quantity: () => 2,
  fits: (part, { value = 0, values }) =>
    numberOf(part, 'connectorA') >= value &&
    numberOf(part, 'connectorMostMm2') >= Number(values?.connectorMostMm2 ?? 0),
}
export const remoteSwitches: Want = {
  kind: 'switches',
  otherwise: 'Remote switch',
  quantity: () => 2,
  fits: (part) => is(part, 'remote', 'yes'),
}
