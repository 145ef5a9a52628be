import { partAt, withField, withoutPart, withPart, type AnyPart, type JobDocument } from '#core/job/document'
import { batteries } from '../listed'
import { assumed, set, setValue, type Remedy, type RemedyOrder } from '../remedy'
import { dcdcBetween, heatingPad, mainFuse, remoteSwitches, shuntMonitor } from '../wants'

const byFloor = 'cable and time, by survey'
const onPaper = 'a line on the customer’s paper'

/** Remedies of the battery itself, its place, its warmth, what watches it, and of lead that stays beside it. */
export const fitting = {
  'cold.heater': {
    kind: 'part',
    label: () => 'Heating pad with thermostat under the battery',
    takes: '1 part',
    hours: 2,
    effect: set(() => ({ heater: 'yes' })),
    wants: heatingPad,
    arrangement: true,
    decidedOn: 'place',
  },
  'cold.warmer-place': {
    kind: 'place',
    label: ({ value }, q) => `Stand the battery where it stays above ${q(value ?? 0, '°C')}`,
    takes: byFloor,
    hours: 3,
    effect: setValue('coldestC'),
    arrangement: true,
    decidedOn: 'place',
    unseen: true,
  },
  'layup.disconnect': {
    kind: 'use',
    label: () => 'Disconnect it for the lay-up',
    takes: onPaper,
    hours: 0,
    effect: (job) => ({ ...job, rules: { ...job.rules, layupSchool: 'rest' } }),
  },
  'layup.top-up': {
    kind: 'paper',
    label: ({ value }, q) => `Look at it and top it up every ${q(value!, 'weeks')}`,
    takes: onPaper,
    hours: 0,
    effect: setValue('layupWeeks'),
  },
  'place.move': {
    kind: 'place',
    label: () => 'Stand it in a locker or the cabin, out of the engine space',
    takes: byFloor,
    hours: 3,
    effect: set(() => ({ where: 'locker' })),
    unseen: true,
  },
  'place.cooler': {
    kind: 'place',
    label: ({ value }, q) => `Stand the battery where it stays below ${q(value!, '°C')}`,
    takes: byFloor,
    hours: 3,
    effect: setValue('hottestC'),
    unseen: true,
  },
  'place.dry': {
    kind: 'place',
    label: () => 'Stand it where water and dust cannot reach it',
    takes: 'shelf or box',
    hours: 2,
    effect: set(() => ({ ingress: 'dry' })),
    unseen: true,
  },
  'place.carry': {
    kind: 'place',
    label: ({ value }, q) =>
      `Tray or floor that carries ${q(value!, 'kg')}, or the maker’s word that it does`,
    takes: 'by survey',
    hours: 3,
    effect: setValue('loadLimitKg'),
    unseen: true,
  },
  'monitor.add': {
    kind: 'part',
    label: () => 'Shunt monitor with an alarm in the main negative',
    takes: '1 part',
    hours: 1.5,
    effect: set(() => ({ monitor: 'shunt', warns: 'yes' })),
    wants: shuntMonitor,
    monitors: true,
  },
  'device.replace-by-monitor': {
    kind: 'part',
    label: () => 'Replace by a shunt monitor with an alarm',
    takes: '1 part',
    hours: 1.5,
    effect: (job, { on }) => withoutPart(job, on),
    wants: shuntMonitor,
    monitors: true,
  },
  'warning.add': {
    kind: 'part',
    label: () => 'Buzzer or lamp that warns before the battery cuts out',
    takes: '1 part',
    hours: 1,
    effect: set(() => ({ warns: 'yes' })),
    wants: 'Buzzer or lamp',
  },
  'fuse.main': {
    kind: 'part',
    label: ({ value }, q) => `Fuses at the battery that interrupt ${q(value!, 'A')}: class T`,
    takes: '1 part a cable',
    hours: 1,
    effect: (job) => mainFuses(job),
    wants: mainFuse,
  },
  'mixed.separate': {
    kind: 'part',
    label: () => 'Part them: sources and loads on the lithium, the lead kept behind a DC-DC',
    takes: '1 part',
    hours: 3,
    effect: set(() => ({ mixed: 'dcdc' })),
    wants: dcdcBetween,
    arrangement: true,
  },
  'mixed.conditions': {
    kind: 'part',
    label: () => 'Fit the stops and a switch for each, and only healthy lead',
    takes: '4 parts',
    hours: 4,
    effect: (job, order) =>
      withField(
        set(() => ({ chargeStop: 'yes', isolators: 'yes' }))(job, order),
        'houseBank/restedV',
        assumed(order.value!),
      ),
    wants: remoteSwitches,
    arrangement: true,
  },
  'mixed.fresh-lead': {
    kind: 'part',
    label: () => 'Fit a healthy lead battery of the same size',
    takes: '1 part',
    hours: 1,
    effect: freshLead,
    wants: 'Lead-acid battery',
  },
  'battery.keep-lead': {
    kind: 'paper',
    label: () => 'Tell the customer: lead kept in good order would do',
    takes: 'a word before the order',
    hours: 0,
    effect: null,
  },
  'battery.more-parallel': {
    kind: 'part',
    label: ({ value }) => `Fit ${value} in parallel`,
    takes: 'more batteries, fused each',
    hours: 1,
    effect: setValue('parallel'),
    adjusts: 'parallel',
    arrangement: true,
    namesAnswer: true,
    supply: ({ value }, job, shelf) => ({
      parts: batteries(job, shelf, Math.max(0, value! - (job.candidate.parallel?.value ?? 1))),
      values: {},
    }),
  },
  'battery.other': {
    kind: 'part',
    label: () => 'Another battery',
    takes: 'from the shelf',
    hours: 0.5,
    effect: null,
  },
  'inverter.limit': {
    kind: 'setting',
    label: ({ value }, q) => `Hold the inverters to ${q(value!, 'W')} in all`,
    takes: 'setting or a smaller inverter',
    hours: 0.5,
    effect: (job, { value }) => limitInverters(job, value!),
    namesAnswer: true,
  },
} as const satisfies Record<string, Remedy>

function freshLead(job: JobDocument, { value }: RemedyOrder): JobDocument {
  const asNew = withField(withField(job, 'houseBank/ageYears', assumed(0)), 'houseBank/testedAh', undefined)
  return withField(asNew, 'houseBank/restedV', assumed(value!))
}

/** Class T fuses at the battery end of every cable. */
const mainFuses = (job: JobDocument): JobDocument =>
  Object.keys(job.conductors).reduce((next, id) => {
    const fused = withField(next, `conductors/${id}/fuseKind`, assumed('class-t'))
    return withField(fused, `conductors/${id}/fuseAicA`, undefined)
  }, job)

/** Scales the inverters down alike until together they ask no more than so many watts. */
function limitInverters(job: JobDocument, watts: number): JobDocument {
  const sizes = Object.entries(job.inverters).map(([id, part]) => [id, part.continuousW?.value ?? 0] as const)
  const total = sizes.reduce((sum, [, size]) => sum + size, 0)
  if (total <= 0) return job
  return sizes.reduce((next, [id, size]) => {
    if (!partAt(next, `inverters/${id}`)) return next
    return withPart(next, `inverters/${id}`, (part: AnyPart) => ({
      ...part,
      continuousW: assumed((size * watts) / total),
    }))
  }, job)
}
