import type { Unit } from '../units/units'

/** A number the shop sets: a threshold, with the reason for its default. */
export interface NumberRule {
  readonly kind: 'number'
  readonly label: string
  readonly unit: Unit
  readonly default: number
  readonly limits: readonly [least: number, most: number]
  readonly reason: string
}

/** A question on which workshops differ: the schools, and the reason for the default. */
export interface SchoolRule<O extends string> {
  readonly kind: 'school'
  readonly label: string
  readonly options: Readonly<Record<O, string>>
  readonly default: NoInfer<O>
  readonly reason: string
}

const number = (label: string, unit: Unit, value: number, limits: readonly [number, number], reason: string): NumberRule =>
  ({ kind: 'number', label, unit, default: value, limits, reason })

const school = <const O extends string>(label: string, options: Readonly<Record<O, string>>, value: NoInfer<O>, reason: string): SchoolRule<O> =>
  ({ kind: 'school', label, options, default: value, reason })

/**
 * Every threshold and school the assessment uses, with its default. Voltages are for a 12 V
 * battery and are scaled to the battery's own nominal voltage. No check has a number of its own.
 */
export const ruleCatalogue = {
  windowLowV: number('Charge window, lowest', 'V', 14.2, [13, 15], 'Most LFP makers ask for 14.2 V or more before the cells are full and balanced'),
  windowHighV: number('Charge window, highest', 'V', 14.6, [13.5, 15.5], '3.65 V a cell, the usual largest charge voltage'),
  absoluteHighV: number('Absolute highest voltage', 'V', 14.8, [14, 16], '3.70 V a cell; above it protection is near'),
  bmsOverVoltageV: number('BMS over-voltage cut', 'V', 15, [14, 16], '3.75 V a cell, where the data give none'),
  maxFloatV: number('Highest float', 'V', 13.6, [13, 14.6], '3.40 V a cell: above it the battery is held full'),
  balanceStartV: number('Balancing starts at', 'V', 13.8, [13.2, 14.6], '3.45 V a cell, where most protection boards begin to balance'),
  restLow: number('Rest band, from state of charge', '%', 30, [0, 60], 'The flat part of the curve begins here'),
  restHigh: number('Rest band, to state of charge', '%', 99, [70, 100], 'A full battery settles here within hours'),

  chargerSchool: school('Charger without a lithium profile', {
    window: 'Allowed while its voltages stay inside the battery’s window',
    replace: 'Replace always',
  }, 'window', 'Decided by numbers that can be measured; a slower or incomplete charge is topped up by another source'),
  lowChargeReaches: number('Charge reached that is enough when another source tops up', '%', 90, [50, 100], 'Nine tenths a day and a full charge now and then keep the cells balanced'),
  lowChargeFrom: number('Charge at the start of a charge', '%', 20, [0, 80], 'What is left after the usable four fifths'),
  chargeRateSchool: school('Charge current held to', {
    recommended: 'The maker’s recommended figure',
    largest: 'The maker’s largest figure',
  }, 'recommended', 'The maker’s recommendation is what the cycle life is stated for'),
  chargeRateC: number('Charge rate where the maker gives none', '×', 0.5, [0.1, 1], '0.5C is inside what LFP makers commonly allow'),
  tailRateC: number('Current at the end of the charge', '×', 0.05, [0.01, 0.2], '5 % of the capacity is the usual tail current'),

  alternatorIdleShare: number('Alternator all day at idle, share of rated', '%', 50, [20, 100], 'Little cooling air at idle; used where no temperature readings exist'),
  alternatorCruiseShare: number('Alternator all day at cruise, share of rated', '%', 65, [20, 100], 'More cooling air at speed; used where no temperature readings exist'),
  hotOutputShare: number('Hot output, share of rated', '%', 85, [50, 100], 'A warm machine gives less than its label'),
  windowTimeShare: number('Drive time inside the window that is enough', '%', 50, [10, 100], 'With less than half the drive usable a charge cannot be counted on'),
  lowLossDropV: number('Drop of a low-loss isolator', 'V', 0.1, [0.02, 0.4], 'Typical of the field-effect kind'),
  leadFloatC: number('Current a full starting battery takes from a lithium bank', '×', 0.001, [0, 0.01], 'About 0.1 A for each 100 Ah at 13.2 V'),
  cableMohm: number('Cable run not entered yet, there and back', 'mΩ', 5, [0, 100], 'About 3 m of 25 mm² with its return; entering the run replaces it'),
  dcdcEfficiency: number('DC-DC efficiency', '%', 90, [70, 99], 'Typical under load'),

  coldLimitC: number('No charging below', '°C', 0, [-30, 10], '0 °C unless the maker’s data say otherwise: lithium plates on the cells below it'),
  coldBand0To5C: number('Charge rate from 0 to 5 °C', '×', 0.1, [0, 1], 'Slow uptake in cold cells'),
  coldBand5To10C: number('Charge rate from 5 to 10 °C', '×', 0.2, [0, 1], 'Slow uptake in cool cells'),
  hotBand45To55C: number('Charge rate from 45 to 55 °C', '×', 0.3, [0, 1], 'Ageing rises steeply when hot'),

  sharing: number('Share each battery of a parallel bank can be counted on for', '%', 90, [50, 100], 'Currents never divide quite evenly'),
  inverterEfficiency: number('Inverter efficiency', '%', 90, [60, 99], 'Where its data give none'),
  lowSoc: number('State of charge at which heavy loads must still run', '%', 20, [5, 50], 'Voltage is lower there, so current is higher'),
  deviceTripLow: number('A voltage device is useful from', '%', 10, [0, 40], 'Below it the warning comes too late'),
  deviceTripHigh: number('A voltage device is useful up to', '%', 40, [10, 80], 'Above it the device trips with energy to spare'),
} as const

export type RuleId = keyof typeof ruleCatalogue
export type RuleValue<K extends RuleId> = (typeof ruleCatalogue)[K] extends SchoolRule<infer O> ? O : number

/** The rules in force, one value each. Per cents are as written (50, not 0.5). */
export type ShopRules = { readonly [K in RuleId]: RuleValue<K> }

/** Rules a shop or a job has changed; the rest keep their defaults. */
export type RuleOverrides = { readonly [K in RuleId]?: RuleValue<K> }

export const ruleIds = Object.keys(ruleCatalogue) as RuleId[]

const defaults = Object.fromEntries(ruleIds.map((id) => [id, ruleCatalogue[id].default])) as unknown as ShopRules

/** Defaults, overlaid by the shop's changes, overlaid by the job's own. */
export const resolveRules = (...overrides: readonly RuleOverrides[]): ShopRules => Object.assign({}, defaults, ...overrides)
