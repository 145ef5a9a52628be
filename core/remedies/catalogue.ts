import { partAt, partsOf, withField, withNewPart, withPart, withoutPart, type AnyPart, type JobDocument, type PartPath } from '#core/job/document'
import type { Known } from '#core/job/fields'
import { formatQuantity } from '#core/units/format'

/** A remedy for one part, with its value where it has one. */
export interface RemedyRef {
  readonly id: RemedyId
  readonly on: PartPath
  readonly value?: number
  /** Further values, by field, that the remedy sets. */
  readonly values?: Readonly<Record<string, number | string>>
}

interface Remedy {
  readonly label: (ref: RemedyRef) => string
  /** What it takes beside time, and usual working hours; 0 for a line on a paper. */
  readonly takes: string
  readonly hours: number
  /** The job with the remedy applied; null for one that changes nothing that is surveyed. */
  readonly apply: ((job: JobDocument, ref: RemedyRef) => JobDocument) | null
}

const assumed = (value: number | string): Known<number | string> => ({ value, how: 'assumed' })

/** Sets fields of the remedy's part. */
const set = (values: (ref: RemedyRef) => Readonly<Record<string, number | string>>): Remedy['apply'] => (job, ref) =>
  Object.entries(values(ref)).reduce((next, [field, value]) => withField(next, `${ref.on}/${field}`, assumed(value)), job)

const v = (ref: RemedyRef): string => formatQuantity(ref.value ?? NaN, 'V')
const a = (ref: RemedyRef): string => formatQuantity(ref.value ?? NaN, 'A')

const lithiumStages = { profile: 'lithium', floatMode: 'off', equaliseStage: 'off', compensation: 'off' } as const

/** Every remedy by id: what it is called, what it takes, and the change it makes to the job. */
export const remedyCatalogue = {
  'charger.equalise-off': { label: () => 'Switch equalise off', takes: 'setting, no part', hours: 5 / 60, apply: set(() => ({ equaliseStage: 'off' })) },
  'charger.set-absorption': { label: (r) => `Set absorption to ${v(r)}`, takes: 'setting, no part', hours: 5 / 60, apply: set((r) => ({ absorptionV: r.value! })) },
  'charger.set-all': { label: (r) => `Set absorption to ${v(r)}, float ${typeof r.values?.floatV === 'number' ? `to ${formatQuantity(r.values.floatV, 'V')}` : 'off'}`, takes: 'setting, no part', hours: 10 / 60, apply: set((r) => r.values!) },
  'charger.make-good': { label: () => 'Make good what else it did: fuse block, second output, inverter', takes: '1 to 2 parts', hours: 2, apply: set(() => ({ holdsFuseBlock: 'no', feeds: 'house', kind: 'charger' })) },
  'charger.use-lithium-profile': { label: () => 'Set its lithium profile', takes: 'setting, no part; measure it afterwards', hours: 10 / 60, apply: set((r) => ({ ...lithiumStages, absorptionV: r.value! })) },
  'charger.float-off': { label: () => 'Switch float off', takes: 'setting, no part', hours: 5 / 60, apply: set(() => ({ floatMode: 'off' })) },
  'charger.set-float': { label: (r) => `Set float to ${v(r)}`, takes: 'setting, no part', hours: 5 / 60, apply: set((r) => ({ floatV: r.value! })) },
  'charger.compensation-off': { label: () => 'Switch temperature compensation off', takes: 'setting or unplug its sensor', hours: 5 / 60, apply: set(() => ({ compensation: 'off' })) },
  'charger.limit-current': { label: (r) => `Set its current limit to ${a(r)}`, takes: 'setting, no part', hours: 5 / 60, apply: set((r) => ({ ratedA: r.value! })) },
  'charger.replace': { label: (r) => `Replace by a lithium unit of ${a(r)}`, takes: '1 part', hours: 1.5, apply: set((r) => ({ ...lithiumStages, ...r.values, ratedA: r.value! })) },
  'charger.top-up': { label: () => 'Accept it; charge to full from another source once a month', takes: 'a line on the customer’s paper', hours: 0, apply: null },
  'alternator.set-regulator': { label: (r) => `Set the regulator to ${v(r)}`, takes: 'setting', hours: 0.25, apply: set((r) => ({ regulatorV: r.value! })) },
  'alternator.external-regulator': { label: (r) => `External regulator set to ${v(r)}`, takes: '1 part with temperature sensor', hours: 4, apply: set((r) => ({ regulator: 'external', regulatorV: r.value! })) },
  'alternator.limit-current': { label: (r) => `External regulator with a temperature sensor, held to ${a(r)}`, takes: '1 part', hours: 4, apply: set((r) => ({ limitA: r.value! })) },
  'link.duty': { label: (r) => `Duty-cycling relay that opens above ${a(r)}`, takes: '1 part', hours: 2, apply: set((r) => ({ kind: 'duty', opensAboveA: r.value!, offTimeS: 60 })) },
  'link.cable': { label: (r) => `Deliberate cable resistance: ${formatQuantity(r.value ?? NaN, 'm')} of 25 mm² one way in all`, takes: 'cable by the metre', hours: 2, apply: (job, ref) => resistanceCable(job, ref) },
  'link.unjoined': { label: () => 'Leave the house bank off this alternator', takes: 'no part', hours: 0.5, apply: set(() => ({ kind: 'none' })) },
  'link.larger': { label: (r) => `Relay, isolator or switch of ${a(r)}`, takes: '1 part', hours: 1, apply: set((r) => ({ relayA: r.value! })) },
  'alternator.surge-protector': { label: () => 'Surge protector on the alternator output', takes: '1 part', hours: 0.5, apply: set(() => ({ surgeProtector: 'yes' })) },
  'alternator.charge-stop-wire': { label: () => 'Wire the battery’s charge-stop signal to the regulator', takes: 'wire; both must have the terminal', hours: 2, apply: set(() => ({ chargeStopWire: 'yes' })) },
  'link.low-loss-isolator': { label: (r) => `Low-loss isolator (${v(r)} drop)`, takes: '1 part', hours: 1, apply: set((r) => ({ dropV: r.value! })) },
  'dcdc.add': { label: (r) => `${a(r)} DC-DC charger ${r.values?.signal === 'voltage' ? 'that starts on voltage' : 'on an ignition signal'}`, takes: '1 part', hours: 3, apply: set((r) => ({ ...lithiumStages, signal: 'wire', ...r.values, kind: 'dcdc', ratedA: r.value! })) },
  'dcdc.signal-wire': { label: () => 'Run an ignition or alternator wire to its signal terminal', takes: 'wire', hours: 1, apply: set(() => ({ signal: 'wire' })) },
  'dcdc.lower-input': { label: (r) => `DC-DC charger that runs down to ${v(r)}, or a thicker cable to it`, takes: '1 part or cable', hours: 2, apply: set((r) => ({ lowestInputV: r.value! })) },
  'dcdc.move': { label: () => 'Stand the DC-DC in a cool, dry place', takes: 'cable and time, by survey', hours: 3, apply: set(() => ({ stands: 'cool' })) },
  'dcdc.right-voltages': { label: (r) => `DC-DC charger made for ${r.values?.inputV} V in, ${r.values?.outputV} V out`, takes: '1 part', hours: 2, apply: set((r) => r.values!) },
  'dcdc.isolated': { label: () => 'DC-DC charger with isolated negatives', takes: '1 part', hours: 2, apply: set(() => ({ isolation: 'isolated' })) },
  'cold.heater': { label: () => 'Heating pad with thermostat under the battery', takes: '1 part', hours: 2, apply: set(() => ({ heater: 'yes' })) },
  'cold.warmer-place': { label: (r) => `Stand the battery where it stays above ${formatQuantity(r.value ?? 0, '°C')}`, takes: 'cable and time, by survey', hours: 3, apply: set((r) => ({ coldestC: r.value! })) },
  'layup.disconnect': { label: () => 'Disconnect it for the lay-up', takes: 'a line on the customer’s paper', hours: 0, apply: (job) => ({ ...job, rules: { ...job.rules, layupSchool: 'rest' } }) },
  'layup.top-up': { label: (r) => `Look at it and top it up every ${formatQuantity(r.value ?? NaN, 'weeks')}`, takes: 'a line on the customer’s paper', hours: 0, apply: set((r) => ({ layupWeeks: r.value! })) },
  'place.move': { label: () => 'Stand it in a locker or the cabin, out of the engine space', takes: 'cable and time, by survey', hours: 3, apply: set(() => ({ where: 'locker' })) },
  'place.dry': { label: () => 'Stand it where water and dust cannot reach it', takes: 'shelf or box', hours: 2, apply: set(() => ({ ingress: 'dry' })) },
  'place.carry': { label: (r) => `Tray or floor that carries ${formatQuantity(r.value ?? NaN, 'kg')}, or the maker’s word that it does`, takes: 'by survey', hours: 3, apply: set((r) => ({ loadLimitKg: r.value! })) },
  'monitor.add': { label: () => 'Shunt monitor with an alarm in the main negative', takes: '1 part', hours: 1.5, apply: set(() => ({ monitor: 'shunt', warns: 'yes' })) },
  'warning.add': { label: () => 'Buzzer or lamp that warns before the battery cuts out', takes: '1 part', hours: 1, apply: set(() => ({ warns: 'yes' })) },
  'use.charge-more': { label: (r) => `Bring ${formatQuantity(r.value ?? NaN, 'Ah')} a day more: sun, driving or a generator`, takes: 'see the paths', hours: 0, apply: null },
  'start.trickle': { label: () => 'Trickle charge for the starting battery, from the mains charger, the sun or the house bank', takes: '1 part', hours: 1, apply: set(() => ({ fedByCharger: 'yes' })) },
  'start.own-battery': { label: () => 'Lead starting battery of its own for the engine', takes: '2 parts', hours: 3, apply: set(() => ({ present: 'yes', chemistry: 'flooded', jumpSwitch: 'no' })) },
  'start.no-jump': { label: () => 'Take the jump switch out', takes: 'no part', hours: 0.5, apply: set(() => ({ jumpSwitch: 'no' })) },
  'link.one-way': { label: () => 'Relay that closes on the starting side alone', takes: 'setting or 1 part', hours: 1, apply: set(() => ({ bothWay: 'no' })) },
  'fuse.main': { label: (r) => `Fuses at the battery that interrupt ${formatQuantity(r.value ?? NaN, 'A')}: class T`, takes: '1 part a cable', hours: 1, apply: (job) => mainFuses(job) },
  'solar.own-controller': { label: () => 'Controller of its own for the panels', takes: '1 part', hours: 1.5, apply: set(() => ({ through: 'own' })) },
  'solar.in-parallel': { label: () => 'Wire the panels in parallel', takes: 'connectors', hours: 1, apply: (job, ref) => panelsInParallel(job, ref.on) },
  'solar.controller': { label: (r) => `Controller for ${formatQuantity(r.value ?? NaN, 'V')} of panels or more`, takes: '1 part', hours: 1.5, apply: set((r) => ({ maxPvV: r.value! })) },
  'solar.larger': { label: (r) => `Controller of ${a(r)}`, takes: '1 part', hours: 1.5, apply: set((r) => ({ ratedA: r.value! })) },
  'source.diversion': { label: () => 'Diversion load with its own switch', takes: '2 parts', hours: 3, apply: set(() => ({ onDisconnect: 'diversion' })) },
  'source.regulator': { label: (r) => `Regulator set to ${v(r)}`, takes: 'setting or 1 part', hours: 1, apply: set((r) => ({ regulatorV: r.value! })) },
  'mixed.separate': { label: () => 'Part them: sources and loads on the lithium, the lead kept behind a DC-DC', takes: '1 part', hours: 3, apply: set(() => ({ mixed: 'dcdc' })) },
  'mixed.conditions': { label: () => 'Fit the stops and a switch for each, and only healthy lead', takes: '4 parts', hours: 4, apply: (job, ref) => withField(set(() => ({ chargeStop: 'yes', isolators: 'yes' }))!(job, ref), 'houseBank/restedV', assumed(ref.value!)) },
  'mixed.fresh-lead': { label: () => 'Fit a healthy lead battery of the same size', takes: '1 part', hours: 1, apply: (job, ref) => withField(withField(withField(job, 'houseBank/ageYears', assumed(0)), 'houseBank/testedAh', undefined), 'houseBank/restedV', assumed(ref.value!)) },
  'battery.keep-lead': { label: () => 'Tell the customer: lead kept in good order would do', takes: 'a word before the order', hours: 0, apply: null },
  'battery.more-parallel': { label: (r) => `Fit ${r.value} in parallel`, takes: 'more batteries, fused each', hours: 1, apply: set((r) => ({ parallel: r.value! })) },
  'battery.other': { label: () => 'Another battery', takes: 'from the shelf', hours: 0.5, apply: null },
  'inverter.limit': { label: (r) => `Hold the inverters to ${formatQuantity(r.value ?? NaN, 'W')} in all`, takes: 'setting or a smaller inverter', hours: 0.5, apply: (job, ref) => limitInverters(job, ref.value!) },
  'device.replace-by-monitor': { label: () => 'Replace by a shunt monitor with an alarm', takes: '1 part', hours: 1.5, apply: (job, ref) => withoutPart(job, ref.on) },
} as const satisfies Record<string, Remedy>

export type RemedyId = keyof typeof remedyCatalogue

/** What the remedy is called, with its number. */
export const remedyLabel = (ref: RemedyRef): string => remedyCatalogue[ref.id].label(ref)
/** What it takes, in words: parts and usual time. */
export function remedyEffort(ref: RemedyRef): string {
  const { takes, hours } = remedyCatalogue[ref.id]
  return hours === 0 ? takes : `${takes}, ${formatQuantity(hours < 0.5 ? hours * 60 : hours, hours < 0.5 ? 'min' : 'h')}`
}
/** Usual working hours of a remedy; by survey, an estimate. */
export const remedyHours = (ref: RemedyRef): number => remedyCatalogue[ref.id].hours
export const canTry = (ref: RemedyRef): boolean => remedyCatalogue[ref.id].apply !== null
export const sameRemedy = (x: RemedyRef, y: RemedyRef): boolean => x.id === y.id && x.on === y.on

/** Remedies of a current, of which the smaller meets both where two ask for it. */
const smallerMeetsBoth: readonly RemedyId[] = ['dcdc.add', 'charger.replace', 'charger.limit-current', 'alternator.limit-current', 'link.duty']

/** Remedies each once; where one comes twice with a current, the smaller; and none for a link that a new DC-DC takes the place of. */
export function joinRemedies(refs: readonly RemedyRef[]): RemedyRef[] {
  const joined: RemedyRef[] = []
  for (const ref of refs) {
    const i = joined.findIndex((known) => sameRemedy(known, ref))
    if (i < 0) joined.push(ref)
    else if (smallerMeetsBoth.includes(ref.id) && ref.value! < joined[i]!.value!) joined[i] = ref
  }
  const relinked = new Set(joined.filter((ref) => ref.id === 'dcdc.add').map((ref) => ref.on))
  return joined.filter((ref) => !(relinked.has(ref.on) && (ref.id.startsWith('link.') || ref.id === 'charger.top-up')))
}

/**
 * The job as it would be with the remedy; the survey given is left as it is.
 * @throws when the remedy changes nothing that is surveyed: see {@link canTry}
 */
export function applyRemedy(job: JobDocument, ref: RemedyRef): JobDocument {
  const { apply } = remedyCatalogue[ref.id] as Remedy
  if (!apply) throw new Error(`${remedyLabel(ref)} changes nothing that can be tried`)
  return apply(job, ref)
}

/** All of a link's cable as one run of 25 mm² with a fuse, of a length that holds the current down. */
function resistanceCable(job: JobDocument, ref: RemedyRef): JobDocument {
  const others = partsOf(job, 'conductors').filter((cable) => cable.part.of === ref.on).reduce((next, cable) => withoutPart(next, cable.path), job)
  const values = { lengthM: ref.value!, areaMm2: 25, insulationC: '105', fuseKind: 'class-t', fuseA: 125, farFuseKind: 'class-t', farFuseA: 125 }
  return withNewPart(others, 'conductors', { of: ref.on, ...Object.fromEntries(Object.entries(values).map(([name, value]) => [name, assumed(value)])) }).job
}

/** Class T fuses at the battery end of every cable. */
const mainFuses = (job: JobDocument): JobDocument => Object.keys(job.conductors).reduce((next, id) =>
  withField(withField(next, `conductors/${id}/fuseKind`, assumed('class-t')), `conductors/${id}/fuseAicA`, undefined), job)

function panelsInParallel(job: JobDocument, path: PartPath): JobDocument {
  const part = partAt(job, path)?.part as Readonly<Record<string, Known<number> | undefined>> | undefined
  const strings = (part?.series?.value ?? 1) * (part?.parallel?.value ?? 1)
  return withField(withField(job, `${path}/series`, assumed(1)), `${path}/parallel`, assumed(strings))
}

/** Scales the inverters down alike until together they ask no more than so many watts. */
function limitInverters(job: JobDocument, watts: number): JobDocument {
  const sizes = Object.entries(job.inverters).map(([id, part]) => [id, part.continuousW?.value ?? 0] as const)
  const total = sizes.reduce((sum, [, size]) => sum + size, 0)
  return sizes.reduce((next, [id, size]) =>
    partAt(next, `inverters/${id}`) && total > 0
      ? withPart(next, `inverters/${id}`, (part: AnyPart) => ({ ...part, continuousW: assumed((size * watts) / total) }))
      : next, job)
}

/** Sizes in which chargers and DC-DC units are made, A. */
const sizesA = [5, 10, 15, 20, 25, 30, 40, 50, 60, 80, 100]

/** The largest usual size that stays at or under a limit, A; the smallest when the limit is under all of them. */
export const sizeUnder = (limitA: number): number => sizesA.findLast((size) => size <= limitA) ?? sizesA[0]!
