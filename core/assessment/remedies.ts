import { partAt, withField, withPart, withoutPart, type AnyPart, type JobDocument, type PartPath } from '../job/document'
import type { Known } from '../job/fields'
import { formatQuantity } from '../units/format'

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
  readonly effort: string
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
  'charger.equalise-off': { label: () => 'Switch equalise off', effort: 'setting, no part, 5 min', apply: set(() => ({ equaliseStage: 'off' })) },
  'charger.set-absorption': { label: (r) => `Set absorption to ${v(r)}`, effort: 'setting, no part, 5 min', apply: set((r) => ({ absorptionV: r.value! })) },
  'charger.use-lithium-profile': { label: () => 'Set its lithium profile', effort: 'setting, no part, 10 min; measure it afterwards', apply: set((r) => ({ ...lithiumStages, absorptionV: r.value! })) },
  'charger.float-off': { label: () => 'Switch float off', effort: 'setting, no part, 5 min', apply: set(() => ({ floatMode: 'off' })) },
  'charger.set-float': { label: (r) => `Set float to ${v(r)}`, effort: 'setting, no part, 5 min', apply: set((r) => ({ floatV: r.value! })) },
  'charger.compensation-off': { label: () => 'Switch temperature compensation off', effort: 'setting or unplug its sensor, 5 min', apply: set(() => ({ compensation: 'off' })) },
  'charger.limit-current': { label: (r) => `Set its current limit to ${a(r)}`, effort: 'setting, no part, 5 min', apply: set((r) => ({ ratedA: r.value! })) },
  'charger.replace': { label: (r) => `Replace by a lithium unit of ${a(r)}`, effort: '1 part, 1.5 h', apply: set((r) => ({ ...lithiumStages, ...r.values, ratedA: r.value! })) },
  'charger.top-up': { label: () => 'Accept it; charge to full from another source once a month', effort: 'a line on the customer’s paper', apply: null },
  'alternator.set-regulator': { label: (r) => `Set the regulator to ${v(r)}`, effort: 'setting, 15 min', apply: set((r) => ({ regulatorV: r.value! })) },
  'alternator.external-regulator': { label: (r) => `External regulator set to ${v(r)}`, effort: '1 part with temperature sensor, 4 h', apply: set((r) => ({ regulator: 'external', regulatorV: r.value! })) },
  'alternator.limit-current': { label: (r) => `Hold the alternator to ${a(r)}: external regulator or duty-cycling relay`, effort: '1 part, 2 to 4 h', apply: set((r) => ({ limitA: r.value! })) },
  'alternator.surge-protector': { label: () => 'Surge protector on the alternator output', effort: '1 part, 0.5 h', apply: set(() => ({ surgeProtector: 'yes' })) },
  'alternator.charge-stop-wire': { label: () => 'Wire the battery’s charge-stop signal to the regulator', effort: 'wire, 2 h; both must have the terminal', apply: set(() => ({ chargeStopWire: 'yes' })) },
  'link.low-loss-isolator': { label: (r) => `Low-loss isolator (${v(r)} drop)`, effort: '1 part, 1 h', apply: set((r) => ({ dropV: r.value! })) },
  'dcdc.add': { label: (r) => `${a(r)} DC-DC charger on an ignition signal`, effort: '1 part, 3 h', apply: set((r) => ({ ...lithiumStages, ...r.values, kind: 'dcdc', signal: 'wire', ratedA: r.value! })) },
  'dcdc.signal-wire': { label: () => 'Run an ignition or alternator wire to its signal terminal', effort: 'wire, 1 h', apply: set(() => ({ signal: 'wire' })) },
  'dcdc.right-voltages': { label: (r) => `DC-DC charger made for ${r.values?.inputV} V in, ${r.values?.outputV} V out`, effort: '1 part, 2 h', apply: set((r) => r.values!) },
  'dcdc.isolated': { label: () => 'DC-DC charger with isolated negatives', effort: '1 part, 2 h', apply: set(() => ({ isolation: 'isolated' })) },
  'cold.heater': { label: () => 'Heating pad with thermostat under the battery', effort: '1 part, 2 h', apply: set(() => ({ heater: 'yes' })) },
  'cold.warmer-place': { label: (r) => `Stand the battery where it stays above ${formatQuantity(r.value ?? 0, '°C')}`, effort: 'cable and time, by survey', apply: set((r) => ({ coldestC: r.value! })) },
  'battery.more-parallel': { label: (r) => `Fit ${r.value} in parallel`, effort: 'more batteries, fused each', apply: set((r) => ({ parallel: r.value! })) },
  'battery.other': { label: () => 'Another battery', effort: 'from the shelf', apply: null },
  'inverter.limit': { label: (r) => `Hold the inverters to ${formatQuantity(r.value ?? NaN, 'W')} in all`, effort: 'setting or a smaller inverter', apply: (job, ref) => limitInverters(job, ref.value!) },
  'device.replace-by-monitor': { label: () => 'Replace by a shunt monitor with an alarm', effort: '1 part, 1.5 h', apply: (job, ref) => withoutPart(job, ref.on) },
} as const satisfies Record<string, Remedy>

export type RemedyId = keyof typeof remedyCatalogue

/** What the remedy is called, with its number. */
export const remedyLabel = (ref: RemedyRef): string => remedyCatalogue[ref.id].label(ref)
export const remedyEffort = (ref: RemedyRef): string => remedyCatalogue[ref.id].effort
export const canTry = (ref: RemedyRef): boolean => remedyCatalogue[ref.id].apply !== null
export const sameRemedy = (x: RemedyRef, y: RemedyRef): boolean => x.id === y.id && x.on === y.on

/**
 * The job as it would be with the remedy; the survey given is left as it is.
 * @throws when the remedy changes nothing that is surveyed: see {@link canTry}
 */
export function applyRemedy(job: JobDocument, ref: RemedyRef): JobDocument {
  const { apply } = remedyCatalogue[ref.id] as Remedy
  if (!apply) throw new Error(`${remedyLabel(ref)} changes nothing that can be tried`)
  return apply(job, ref)
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
