import type { BatteryUnit } from '#core/network/network'
import { type Bench } from '../tests/make'
import { inside } from '#core/units/format'
import { unitsOf, withEmf, withUnit } from '../rig'
import { stepsBetween, timesBetween, withOne, type Fault, type Place } from './fault'

const batteries = (
  { rig: { network } }: Bench,
  wanted: (unit: BatteryUnit) => boolean,
  sizes?: (unit: BatteryUnit) => readonly number[],
): Place[] =>
  unitsOf(network, 'battery')
    .filter(wanted)
    .map((unit) => ({
      at: unit.id,
      where: `at ${inside(unit.name)}`,
      ...(sizes ? { sizes: sizes(unit) } : {}),
    }))

const isLithium = ({ chemistry }: BatteryUnit): boolean => chemistry === 'lithium'
const isLead = ({ chemistry }: BatteryUnit): boolean => chemistry === 'lead'

export const weakPack: Fault = {
  id: 'pack-weak',
  title: 'Pack weak',
  prior: 1,
  unit: 'mΩ',
  scale: 'times',
  harm: 'stranded',
  places: (bench) => batteries(bench, isLithium, ({ ohm }) => timesBetween(1000 * ohm * 2, 1000 * ohm * 12)),
  change: (rig, at, mOhm) =>
    withUnit(rig, at, (unit) =>
      unit.kind === 'battery' ? { ...unit, ohm: mOhm / 1000, chargingOhm: mOhm / 1000 } : unit,
    ),
  mend: 'Charge it alone, test its capacity, and take it back where it fails.',
}

export const packGated: Fault = {
  id: 'pack-cold-gated',
  title: 'Pack takes no charge: its electronics have shut the way in',
  prior: 1.5,
  unit: '',
  scale: 'each',
  harm: 'stranded',
  places: (bench) => batteries(bench, isLithium),
  change: (rig, at) => ({ ...rig, chargeShut: withOne(rig.chargeShut, at) }),
  mend: 'Read its temperature and its alarms; warm it, or reset it as its maker says.',
}

export const packAbsent: Fault = {
  id: 'pack-absent',
  title: 'Pack gives nothing to the bank',
  prior: 1.5,
  unit: '',
  scale: 'each',
  harm: 'stranded',
  places: (bench) =>
    unitsOf(bench.rig.network, 'battery').filter(isLithium).length > 1 ? batteries(bench, isLithium) : [],
  change: (rig, at) => ({ ...rig, absent: withOne(rig.absent, at) }),
  mend: 'Wake its electronics, and see its fuse and its leads.',
}

export const outOfBalance: Fault = {
  id: 'out-of-balance',
  title: 'Cells out of balance: it stops the charge when nearly full',
  prior: 1.5,
  unit: '',
  scale: 'each',
  harm: 'damage',
  places: (bench) => batteries(bench, isLithium),
  change: (rig, at) => ({ ...rig, cutsWhenFull: withOne(rig.cutsWhenFull, at) }),
  mend: 'Hold it at a lower voltage for some hours, so that it balances, and try again.',
}

/** A failing lead battery rests so much lower, V of 12, and gives way so many times as much. */
const failing = { lowerV: [0.4, 0.8, 1.4, 2.1], times: 3 } as const

export const leadFailing: Fault = {
  id: 'lead-failing',
  title: 'Lead battery failing',
  prior: 2,
  unit: 'V',
  scale: 'apart',
  harm: 'stranded',
  places: (bench) => batteries(bench, isLead, () => failing.lowerV),
  change: (rig, at, lowerV) =>
    withUnit(rig, at, (unit) =>
      unit.kind === 'battery'
        ? {
            ...withEmf(unit, unit.restV - lowerV),
            ohm: unit.ohm * failing.times,
            chargingOhm: unit.chargingOhm,
          }
        : unit,
    ),
  mend: 'Charge it alone, let it rest, test it under load, and change it.',
}

export const startingWeak: Fault = {
  id: 'starting-weak',
  title: 'Starting battery weak',
  prior: 2,
  unit: 'mΩ',
  scale: 'times',
  harm: 'stranded',
  places: (bench) =>
    batteries(
      bench,
      (unit) => isLead(unit) && unit.serves === 'engine',
      ({ ohm }) => timesBetween(1000 * ohm * 2, 1000 * ohm * 6),
    ),
  change: (rig, at, mOhm) =>
    withUnit(rig, at, (unit) => (unit.kind === 'battery' ? { ...unit, ohm: mOhm / 1000 } : unit)),
  mend: 'Charge it alone and crank again. Replace it when the voltage still falls too far.',
}

/** A battery that fails its label holds this share of it, % (engineering default). */
const holdsOfLabel = [50, 88] as const

export const capacityLow: Fault = {
  id: 'capacity-low',
  title: 'Capacity below the label',
  prior: 1,
  unit: '%',
  scale: 'apart',
  harm: 'stranded',
  places: (bench) =>
    batteries(
      bench,
      ({ id }) => bench.rig.capacityAh[id] !== undefined,
      () => stepsBetween(...holdsOfLabel, 5),
    ),
  change: (rig, at, percent) => ({
    ...rig,
    capacityAh: { ...rig.capacityAh, [at]: (rig.capacityAh[at]! * percent) / 100 },
  }),
  mend: 'Charge it full, repeat the capacity test, and return the battery when it fails again.',
}

export default [weakPack, packGated, packAbsent, outOfBalance, leadFailing, startingWeak, capacityLow]
