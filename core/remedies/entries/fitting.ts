import { joinText } from '#core/units/format'
import {
  partAt,
  withField,
  withoutPart,
  withPart,
  type AnyPart,
  type JobDocument,
  type PartPath,
} from '#core/job/document'
import type { ListedPart } from '#core/job/specified'
import { batteries, cableByTheMetre, listed, unlisted } from '../listed'
import {
  assumed,
  set,
  setValue,
  valued,
  type Remedy,
  type RemedyOrder,
  type Supply,
  type ValuedOrder,
} from '../remedy'
import type { ShelfPart } from '#core/shelf/kinds'
import type { Known } from '#core/job/fields'
import { highestChargeV } from '#core/wiring/charge-voltage'
import { fuseFamilies } from '#core/job/parts/wiring'
import { cheapestFamily, fuseInterruptA, type FuseFamily } from '#core/physics/fuses'
import { fuseLabel } from '../fuse-label'
import { dcdcBetween, fuseOfSize, heatingPad, largerPlug, remoteSwitches, shuntMonitor } from '../wants'

const byFloor = 'cable and time, by survey'
const onPaper = 'a line on the customer’s paper'

/** Remedies of the battery itself, its place, its warmth, its monitor, and of lead-acid that stays next to it. */
export const fitting = {
  'cold.heater': {
    kind: 'part',
    label: () => 'Fit a heating pad with a thermostat under the battery',
    takes: '1 part',
    hours: 2,
    effect: set(() => ({ heater: 'yes' })),
    wants: heatingPad,
    arrangement: true,
    decidedOn: 'place',
  },
  'cold.warmer-place': {
    kind: 'place',
    label: ({ value }, q) => `Move the battery to a place that stays above ${q(value ?? 0, '°C')}`,
    takes: byFloor,
    hours: 3,
    effect: warmed,
    arrangement: true,
    decidedOn: 'place',
    unseen: true,
  },
  'layup.disconnect': {
    kind: 'use',
    label: () => 'Disconnect it for the lay-up',
    takes: onPaper,
    hours: 0,
    effect: (_order, job) => ({ ...job, rules: { ...job.rules, layupSchool: 'rest' } }),
  },
  'layup.top-up': {
    kind: 'paper',
    label: valued(({ value }, q) => `Check it and top it up every ${q(value, 'weeks')}`),
    takes: onPaper,
    hours: 0,
    effect: setValue('layupWeeks'),
  },
  'place.move': {
    kind: 'place',
    label: () => 'Move it to a dry locker or the cabin, out of the engine space',
    takes: byFloor,
    hours: 3,
    effect: set(() => ({ where: 'locker', ingress: 'dry' })),
    unseen: true,
  },
  'place.cooler': {
    kind: 'place',
    label: valued(({ value }, q) => `Move the battery to a place that stays below ${q(value, '°C')}`),
    takes: byFloor,
    hours: 3,
    effect: setValue('hottestC'),
    unseen: true,
  },
  'place.dry': {
    kind: 'place',
    label: () => 'Move it to a place without water and dust',
    takes: 'shelf or box',
    hours: 2,
    effect: set(() => ({ ingress: 'dry' })),
    unseen: true,
  },
  'place.carry': {
    kind: 'place',
    label: valued(
      ({ value }, q) => `Fit a tray or floor that carries ${q(value, 'kg')}, or get the maker’s confirmation`,
    ),
    takes: 'by survey',
    hours: 3,
    effect: setValue('loadLimitKg'),
    unseen: true,
  },
  'monitor.add': {
    kind: 'part',
    label: () => 'Fit a shunt monitor with an alarm in the main negative',
    takes: '1 part',
    hours: 1.5,
    effect: ({ on, replaces = [] }, job) => replaces.reduce(withoutPart, watched(job, on)),
    wants: shuntMonitor,
    monitors: true,
  },
  'device.replace-by-monitor': {
    kind: 'part',
    label: () => 'Replace it with a shunt monitor that has an alarm',
    takes: '1 part',
    hours: 1.5,
    effect: ({ on }, job) => withoutPart(watched(job, 'use'), on),
    wants: shuntMonitor,
    monitors: true,
  },
  'warning.add': {
    kind: 'part',
    label: () => 'Fit a buzzer or lamp that warns before the battery cuts out',
    takes: '1 part',
    hours: 1,
    effect: set(() => ({ warns: 'yes' })),
    wants: 'Buzzer or lamp',
  },
  'fuse.main': {
    kind: 'part',
    label: valued(({ value }, q) => `Fit fuses that interrupt ${q(value, 'A')} or more`),
    takes: '1 part a cable',
    hours: 1,
    effect: valued(({ value }, job) => sternerFuses(job, value)),
    supply: valued(({ value }, job, shelf) => ({ parts: sternerFuseParts(value, job, shelf), values: {} })),
  },
  'fuse.size': {
    kind: 'part',
    label: valued(({ value, values }, q) => fuseLabel(value, values?.fuseKind, q)),
    takes: '1 part',
    hours: 0.5,
    effect: valued(fused),
    wants: fuseOfSize,
  },
  'fuse.far-end': {
    kind: 'part',
    label: valued(({ value, values }, q) => `${fuseLabel(value, values?.fuseKind, q)} at the far end too`),
    takes: '1 part and its holder',
    hours: 1,
    effect: valued(farFuse),
    wants: fuseOfSize,
  },
  'plug.larger': {
    kind: 'part',
    label: valued(({ value }, q) => `Fit a plug and socket rated for ${q(value, 'A')}`),
    takes: '1 pair',
    hours: 1,
    effect: set(valued(({ value, values }) => ({ connectorA: value, ...values }))),
    wants: largerPlug,
  },
  'cable.thicker': {
    kind: 'wiring',
    label: valued(({ value }, q) => `Fit a cable of ${q(value, 'mm²')}`),
    takes: 'cable by the metre',
    hours: 2,
    effect: set(valued(({ value, values }) => ({ areaMm2: value, ...values }))),
    supply: valued(({ on, value }, job, shelf) => cableFor(job, on, value, shelf)),
    largerMeetsBoth: true,
  },
  'mixed.replace': {
    kind: 'use',
    label: () => 'Remove the old battery',
    takes: 'nothing bought',
    hours: 0.5,
    effect: set(() => ({ mixed: 'replaced' })),
    arrangement: true,
  },
  'mixed.separate': {
    kind: 'part',
    label: () => 'Separate them: put sources and loads on the new battery and a DC-DC to the old one',
    takes: '1 part',
    hours: 3,
    effect: set(() => ({ mixed: 'dcdc' })),
    wants: dcdcBetween,
    arrangement: true,
  },
  'mixed.conditions': {
    kind: 'part',
    label: () =>
      joinText(
        'Fit a charge stop, a discharge stop and a switch for each battery, ',
        'and keep only healthy lead-acid batteries',
      ),
    takes: '4 parts',
    hours: 4,
    effect: valued((order, job) =>
      withField(
        set(() => ({ chargeStop: 'yes', isolators: 'yes' }))(order, job),
        'houseBank/restedV',
        assumed(order.value),
      ),
    ),
    wants: remoteSwitches,
    arrangement: true,
  },
  'mixed.fresh-lead': {
    kind: 'part',
    label: () => 'Fit a healthy lead-acid battery of the same size',
    takes: '1 part',
    hours: 1,
    effect: valued(freshLead),
    wants: 'Lead-acid battery',
  },
  'battery.keep-lead': {
    kind: 'paper',
    label: () => 'Tell the customer that lead-acid in good order would do',
    takes: 'a talk before the order',
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
    largerMeetsBoth: true,
    arrangement: true,
    namesAnswer: true,
    supply: valued(({ value }, job, shelf) => ({
      parts: batteries(job, shelf, Math.max(0, value - (job.candidate.parallel?.value ?? 1))),
      values: {},
    })),
  },
  'battery.other': {
    kind: 'part',
    label: () => 'Choose another battery',
    takes: 'from the shelf',
    hours: 0.5,
    effect: null,
  },
  'inverter.replace': {
    kind: 'part',
    label: valued(({ value }, q) => `Fit an inverter of ${q(value, 'W')} for this voltage`),
    takes: '1 part',
    hours: 2,
    effect: ({ on, values }, job) =>
      withField(
        withField(job, `${on}/nominalV`, assumed(String(values?.nominalV))),
        `${on}/cutOffV`,
        undefined,
      ),
    wants: 'Inverter',
  },
  'load.converter': {
    kind: 'part',
    label: valued(
      ({ value, values }, q) =>
        `Feed it through a converter to ${String(values?.madeForV)} V for ${q(value, 'A')}`,
    ),
    takes: '1 part',
    hours: 1,
    effect: ({ on, values }, job) =>
      withField(
        withField(job, `${on}/nominalV`, assumed('same')),
        `${on}/amps`,
        assumed(Number(values?.drawsA)),
      ),
    wants: 'Converter',
  },
  'start.winter-lead': {
    kind: 'paper',
    label: () => 'Fit a lead-acid battery for the winter and the lithium battery in spring',
    takes: 'a lead battery of the old size',
    hours: 0,
    effect: null,
  },
  'inverter.transfer': {
    kind: 'part',
    label: () => 'Have a licensed electrician fit a transfer switch between shore and inverter',
    takes: '1 part, by a licensed person',
    hours: 2,
    effect: set(() => ({ transferSwitch: 'separate' })),
    wants: 'Transfer switch',
  },
  'inverter.limit': {
    kind: 'setting',
    label: valued(({ value }, q) => `Limit the inverters to ${q(value, 'W')} in total`),
    takes: 'setting or a smaller inverter',
    hours: 0.5,
    effect: valued(({ value }, job) => limitInverters(job, value)),
    namesAnswer: true,
  },
} as const satisfies Record<string, Remedy>

/** The battery in a warmer place: outside it stays as cold as it was. */
function warmed(order: RemedyOrder, job: JobDocument): JobDocument {
  const known = [job.place.coldestC?.value, job.place.outsideC?.value].filter((celsius) => celsius != null)
  const moved = setValue('coldestC')(order, job)
  return known.length === 0 ? moved : withField(moved, 'place/outsideC', assumed(Math.min(...known)))
}

function freshLead({ value }: ValuedOrder, job: JobDocument): JobDocument {
  const asNew = withField(withField(job, 'houseBank/ageYears', assumed(0)), 'houseBank/testedAh', undefined)
  return withField(asNew, 'houseBank/restedV', assumed(value))
}

const watched = (job: JobDocument, use: PartPath): JobDocument =>
  set(() => ({ monitor: 'shunt', warns: 'yes' }))({ on: use }, job)

/** A cable with a fuse of a rating, and none larger at its far end. */
function fused({ on: path, value: amps, values }: ValuedOrder, job: JobDocument): JobDocument {
  const far = (partAt(job, path)?.part as Readonly<Record<string, Known<number> | undefined>>).farFuseA
  const near = withField(job, `${path}/fuseA`, assumed(amps))
  const sized =
    far?.value != null && far.value > amps ? withField(near, `${path}/farFuseA`, assumed(amps)) : near
  return values?.fuseKind ? withFuseKind(sized, path, values.fuseKind) : sized
}

/** A cable with a fuse of another family, whose interrupt rating is then the usual one. */
const withFuseKind = (job: JobDocument, path: PartPath, family: string | number): JobDocument =>
  withField(withField(job, `${path}/fuseKind`, assumed(family)), `${path}/fuseAicA`, undefined)

/** A fuse at the far end of a cable, of the kind of the near one. */
function farFuse({ on, value, values }: ValuedOrder, job: JobDocument): JobDocument {
  const near = (partAt(job, on)?.part as Readonly<Record<string, Known<string> | undefined>>).fuseKind
  const family = values?.fuseKind ?? (near?.value === 'none' ? undefined : near?.value) ?? 'anl'
  const kind = withField(job, `${on}/farFuseKind`, assumed(family))
  return withField(kind, `${on}/farFuseA`, assumed(value))
}

/** Cable of a size for a run that is there, its return too where that is cable. */
function cableFor(job: JobDocument, path: PartPath, areaMm2: number, shelf: readonly ShelfPart[]): Supply {
  const run = partAt(job, path)?.part as Readonly<Record<string, Known<number | string> | undefined>>
  const lengthM = Number(run.lengthM?.value ?? 3)
  return cableByTheMetre(areaMm2, lengthM * (run.returnBy?.value === 'chassis' ? 1 : 2), shelf)
}

interface SternerFuse {
  readonly conductor: string
  readonly ratedA: number | null
  readonly family: FuseFamily
}

/**
 * The surveyed cables whose fuse interrupts less than the short-circuit current, each with the cheapest family that
 * does. The rating stays, because the fuse protects its cable.
 */
function sternerFusesFor(job: JobDocument, interruptsA: number): SternerFuse[] {
  const { nominalV, series } = job.candidate
  const volts = highestChargeV({ nominalV: Number(nominalV?.value ?? 12) * (series?.value ?? 1) })
  const interrupts = (family: FuseFamily): number => fuseInterruptA(family, volts)
  return Object.entries(job.conductors).flatMap(([conductor, { fuseA, fuseKind, fuseAicA }]) => {
    const kind = fuseKind?.value ?? null
    const ownA = fuseAicA?.value ?? (kind === null || kind === 'none' ? 0 : interrupts(kind))
    if (ownA >= interruptsA) return []
    const ratedA = fuseA?.value ?? null
    const family = cheapestFamily(ratedA ?? 100, (one) => interrupts(one) >= interruptsA) ?? 'class-t'
    return [{ conductor, ratedA, family }]
  })
}

function sternerFuseParts(interruptsA: number, job: JobDocument, shelf: readonly ShelfPart[]): ListedPart[] {
  return sternerFusesFor(job, interruptsA).map(({ ratedA, family }) => {
    const part = shelf.find(
      ({ kind, values }) =>
        kind === 'fuses' &&
        values.fuseKind === family &&
        values.fuseA === ratedA &&
        Number(values.fuseAicA) >= interruptsA,
    )
    return part
      ? listed(part)
      : unlisted(`${fuseFamilies[family]} fuse${ratedA === null ? '' : ` ${ratedA} A`} with its holder`)
  })
}

const sternerFuses = (job: JobDocument, interruptsA: number): JobDocument =>
  sternerFusesFor(job, interruptsA).reduce(
    (next, { conductor, family }) => withFuseKind(next, `conductors/${conductor}`, family),
    job,
  )

/** Scales the inverters down alike until together they ask no more than this many watts. */
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
