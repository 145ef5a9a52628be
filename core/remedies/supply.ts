import type { RemedyRef } from './catalogue'
import type { System } from '#core/system/system'
import type { PartKindId } from '#core/job/fields'
import type { JobDocument } from '#core/job/document'
import type { ListedPart } from '#core/job/specified'
import { valuesFromShelf, type ShelfKindId, type ShelfPart } from '#core/shelf/kinds'

/** One way of carrying a remedy out: what is bought, and what its data sheet then says of the part of the job. */
export interface Supply {
  readonly parts: readonly ListedPart[]
  readonly values: Readonly<Record<string, unknown>>
  /** What it is called in a name: “40 A DC-DC”. */
  readonly words: string | null
}

const numberOf = (part: ShelfPart, name: string): number => Number(part.values[name] ?? NaN)
const is = (part: ShelfPart, name: string, value: string): boolean => part.values[name] === value

export const shelfPart = (part: ShelfPart, quantity: number): ListedPart => needed(part, quantity)
const needed = (part: ShelfPart, quantity = 1, unit: '' | 'm' = '', price = part.values.price): ListedPart =>
  ({ kind: part.kind, code: part.code, version: part.version, name: part.name, quantity, unit, price: typeof price === 'number' ? price : null })

/** A thing that is needed and not on the shelf: bought elsewhere, its price to be asked. */
export const unlisted = (name: string, quantity = 1): ListedPart => ({ kind: null, code: '', version: 0, name, quantity, unit: '', price: null })

const nothing: Supply = { parts: [], values: {}, words: null }

interface Want {
  readonly kind: ShelfKindId
  readonly fits: (part: ShelfPart, ref: RemedyRef, system: System) => boolean
  /** What is preferred among those that fit: smaller first. */
  readonly order?: (part: ShelfPart, ref: RemedyRef) => number
  readonly into?: PartKindId
  readonly quantity?: (job: JobDocument) => number
  readonly otherwise: string
}

const near = (name: string) => (part: ShelfPart, ref: RemedyRef): number => Math.abs(numberOf(part, name) - (ref.value ?? 0))
const cheap = (part: ShelfPart): number => numberOf(part, 'price')
const house = (system: System): string => String(system.bank.nominalV)
const isLithium = (part: ShelfPart): boolean => is(part, 'profile', 'lithium') || is(part, 'profile', 'adjustable')

/** What each remedy takes from the shelf. A remedy that is not here takes no part, or one that no shelf of this trade lists. */
const wants: Partial<Record<RemedyRef['id'], Want>> = {
  'dcdc.add': { kind: 'dcdc', into: 'links', fits: (p, ref, system) => is(p, 'inputV', String(ref.values?.inputV)) && is(p, 'outputV', house(system)) && numberOf(p, 'ratedA') <= system.bank.largestA, order: near('ratedA'), otherwise: 'DC-DC charger' },
  'dcdc.right-voltages': { kind: 'dcdc', into: 'links', fits: (p, ref, system) => is(p, 'inputV', String(ref.values?.inputV)) && is(p, 'outputV', house(system)), order: cheap, otherwise: 'DC-DC charger' },
  'dcdc.isolated': { kind: 'dcdc', into: 'links', fits: (p, _ref, system) => is(p, 'isolation', 'isolated') && is(p, 'outputV', house(system)), order: cheap, otherwise: 'Isolated DC-DC charger' },
  'mixed.separate': { kind: 'dcdc', fits: (p, _ref, system) => is(p, 'inputV', house(system)) && is(p, 'outputV', house(system)), order: cheap, otherwise: 'DC-DC charger' },
  'charger.replace': { kind: 'chargers', into: 'chargers', fits: (p, _ref, system) => isLithium(p) && is(p, 'nominalV', house(system)) && numberOf(p, 'ratedA') <= system.bank.largestA, order: near('ratedA'), otherwise: 'Lithium charger' },
  'link.low-loss-isolator': { kind: 'relays', into: 'links', fits: (p, ref) => is(p, 'kind', 'diode') && numberOf(p, 'dropV') <= ref.value! + 0.051, order: cheap, otherwise: 'Low-loss isolator' },
  'link.duty': { kind: 'relays', into: 'links', fits: (p, ref) => is(p, 'kind', 'duty') && numberOf(p, 'opensAboveA') <= ref.value! * 1.3, order: near('opensAboveA'), otherwise: 'Duty-cycling relay' },
  'link.one-way': { kind: 'relays', into: 'links', fits: (p) => is(p, 'kind', 'vsr') && is(p, 'bothWay', 'no'), order: cheap, otherwise: 'One-way relay' },
  'link.larger': { kind: 'relays', fits: (p, ref) => numberOf(p, 'relayA') >= ref.value!, order: cheap, otherwise: 'Larger relay or isolator' },
  'alternator.limit-current': { kind: 'regulators', fits: (p) => is(p, 'temperatureSensor', 'yes'), order: cheap, otherwise: 'External regulator with a temperature sensor' },
  'alternator.external-regulator': { kind: 'regulators', fits: () => true, order: cheap, otherwise: 'External regulator' },
  'cold.heater': { kind: 'heaters', into: 'candidate', fits: (p, _ref, system) => is(p, 'nominalV', house(system)), order: cheap, otherwise: 'Heating pad with thermostat' },
  'monitor.add': { kind: 'monitors', fits: (p, _ref, system) => is(p, 'alarm', 'yes') && numberOf(p, 'shuntA') >= system.bank.continuousA, order: cheap, otherwise: 'Shunt monitor with an alarm' },
  'device.replace-by-monitor': { kind: 'monitors', fits: (p, _ref, system) => is(p, 'alarm', 'yes') && numberOf(p, 'shuntA') >= system.bank.continuousA, order: cheap, otherwise: 'Shunt monitor with an alarm' },
  'fuse.main': { kind: 'fuses', fits: (p, ref) => is(p, 'fuseKind', 'class-t') && numberOf(p, 'fuseAicA') >= ref.value!, order: cheap, quantity: (job) => Math.max(1, Object.keys(job.conductors).length), otherwise: 'Class T fuse' },
  'mixed.conditions': { kind: 'switches', fits: (p) => is(p, 'remote', 'yes'), order: cheap, quantity: () => 2, otherwise: 'Remote switch' },
  'solar.controller': { kind: 'controllers', into: 'solar', fits: (p, ref) => isLithium(p) && numberOf(p, 'maxPvV') >= ref.value!, order: cheap, otherwise: 'Solar controller' },
  'solar.larger': { kind: 'controllers', into: 'solar', fits: (p, ref) => isLithium(p) && numberOf(p, 'ratedA') >= ref.value!, order: cheap, otherwise: 'Solar controller' },
  'solar.own-controller': { kind: 'controllers', into: 'solar', fits: (p) => isLithium(p), order: cheap, otherwise: 'Solar controller' },
}

/** Remedies that take something no shelf of this shop lists, by what it is called. */
const unlistedNames: Partial<Record<RemedyRef['id'], string>> = {
  'alternator.surge-protector': 'Surge protector', 'source.diversion': 'Diversion load with its switch', 'warning.add': 'Buzzer or lamp', 'start.own-battery': 'Starting battery', 'start.trickle': 'Trickle charger',
  'mixed.fresh-lead': 'Lead-acid battery', 'source.regulator': 'Regulator', 'charger.make-good': 'Fuse block or second charger', 'dcdc.lower-input': 'Thicker cable',
}

/** Which part of a job takes the values of a DC-DC or charger, when it is not the part the remedy is on. */
const valuesInto = (want: Want, ref: RemedyRef): PartKindId | null => (want.into && ref.on.startsWith(want.into) ? want.into : null)

/**
 * The ways a remedy can be supplied from the shelf, the best fitting first. One way without a part where it takes none;
 * one with an unpriced thing where the shelf holds nothing that fits.
 * @param most ways given at most
 */
export function suppliesFor(ref: RemedyRef, job: JobDocument, system: System, shelf: readonly ShelfPart[], most = 1): Supply[] {
  if (ref.id === 'battery.more-parallel') return [{ parts: batteries(job, shelf, Math.max(0, ref.value! - (job.candidate.parallel?.value ?? 1))), values: {}, words: `${ref.value} in parallel` }]
  if (ref.id === 'link.cable') {
    const cable = shelf.filter((p) => p.kind === 'conductors' && numberOf(p, 'areaMm2') === 25).sort((a, b) => numberOf(a, 'pricePerM') - numberOf(b, 'pricePerM'))[0]
    return [{ parts: [cable ? needed(cable, Math.ceil(ref.value! * 2), 'm', cable.values.pricePerM) : unlisted('Cable 25 mm²')], values: {}, words: null }]
  }
  const want = wanted(ref)
  if (!want) return [unlistedNames[ref.id] ? { ...nothing, parts: [unlisted(unlistedNames[ref.id]!)] } : nothing]
  const order = want.order ?? cheap
  const fitting = shelf.filter((p) => p.kind === want.kind && want.fits(p, ref, system)).sort((a, b) => order(a, ref) - order(b, ref) || cheap(a) - cheap(b) || (a.code < b.code ? -1 : 1))
  const quantity = want.quantity?.(job) ?? 1
  if (fitting.length === 0) return [{ ...nothing, parts: [unlisted(want.otherwise, quantity)] }]
  const into = valuesInto(want, ref)
  return distinct(fitting).slice(0, most).map((p) => ({ parts: [needed(p, quantity)], values: into ? valuesFromShelf(p, into) : {}, words: null }))
}

/** What a remedy wants; in place of a DC-DC another DC-DC, in place of a solar controller another one. */
function wanted(ref: RemedyRef): Want | undefined {
  if (ref.id !== 'charger.replace') return wants[ref.id]
  if (ref.on.startsWith('solar')) return { ...wants['solar.larger']!, fits: (p) => isLithium(p) }
  return ref.on.startsWith('links') ? { ...wants['dcdc.right-voltages']!, fits: (p, _ref, system) => is(p, 'outputV', house(system)), order: near('ratedA') } : wants['charger.replace']
}

/** Of parts with the same rating the best fitting one. */
const distinct = (parts: readonly ShelfPart[]): ShelfPart[] => {
  const seen = new Set<string>()
  return parts.filter((p) => seen.size < seen.add(`${p.values.ratedA ?? p.values.opensAboveA ?? p.values.heaterW ?? p.code}`).size)
}

/** Batteries of the candidate's kind, at the price on the shelf, else at the one in the job. */
export function batteries(job: JobDocument, shelf: readonly ShelfPart[], quantity: number): ListedPart[] {
  if (quantity === 0) return []
  const { shelf: ref, name, price } = job.candidate
  const part = shelf.find((p) => p.kind === 'batteries' && p.code === ref?.code)
  const own = (price?.value ?? 0) > 0 ? price!.value! : null
  return [part ? { ...needed(part, quantity), price: own ?? needed(part).price } : { ...unlisted(name ?? 'New battery', quantity), price: own }]
}
