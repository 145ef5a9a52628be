import { fieldOf } from '#core/collections/held'
import type { BatteryUnit } from '#core/wiring/network'
import { type Bench } from '#core/commissioning/tests/make'
import { nameInSentence } from '#core/units/format'
import { unitsOf, withEmf, withUnit } from '#core/commissioning/rig'
import { stepsBetween, timesBetween, withOne, type Fault, type FaultPlace } from './fault'

const batteries = (
  { rig: { network } }: Bench,
  wanted: (unit: BatteryUnit) => boolean,
  sizes?: (unit: BatteryUnit) => readonly number[],
): FaultPlace[] =>
  unitsOf(network, 'battery')
    .filter(wanted)
    .map((unit) => ({
      at: unit.id,
      where: `at ${nameInSentence(unit.name)}`,
      ...(sizes ? { sizes: sizes(unit) } : {}),
    }))

const isLithium = ({ chemistry }: BatteryUnit): boolean => chemistry === 'lithium'
const isLead = ({ chemistry }: BatteryUnit): boolean => chemistry === 'lead'

const weakPack: Fault = {
  id: 'pack-weak',
  title: 'Weak pack',
  prior: 1,
  unit: 'mΩ',
  scale: 'times',
  harm: 'stranded',
  places: (bench) => batteries(bench, isLithium, ({ ohm }) => timesBetween(1000 * ohm * 2, 1000 * ohm * 12)),
  change: (rig, at, mOhm) =>
    withUnit(rig, at, (unit) =>
      unit.kind === 'battery' ? { ...unit, ohm: mOhm / 1000, chargingOhm: mOhm / 1000 } : unit,
    ),
  mend: 'Charge it alone and test its capacity. Return it if it fails.',
}

const packGated: Fault = {
  id: 'pack-cold-gated',
  title: 'Pack refuses charge: its BMS blocks charging',
  prior: 1.5,
  unit: '',
  scale: 'each',
  harm: 'stranded',
  places: (bench) => batteries(bench, isLithium),
  change: (rig, at) => ({ ...rig, chargeShut: withOne(rig.chargeShut, at) }),
  mend: 'Read its temperature and alarms. Warm it, or reset it as the maker describes.',
}

const packAbsent: Fault = {
  id: 'pack-absent',
  title: 'Pack adds nothing to the bank',
  prior: 1.5,
  unit: '',
  scale: 'each',
  harm: 'stranded',
  places: (bench) =>
    unitsOf(bench.rig.network, 'battery').filter(isLithium).length > 1 ? batteries(bench, isLithium) : [],
  change: (rig, at) => ({ ...rig, absent: withOne(rig.absent, at) }),
  mend: 'Wake its BMS. Check its fuse and its leads.',
}

const outOfBalance: Fault = {
  id: 'out-of-balance',
  title: 'Cells out of balance: the BMS stops the charge near full',
  prior: 1.5,
  unit: '',
  scale: 'each',
  harm: 'damage',
  places: (bench) => batteries(bench, isLithium),
  change: (rig, at) => ({ ...rig, cutsWhenFull: withOne(rig.cutsWhenFull, at) }),
  mend: 'Hold it at a lower voltage for some hours to balance the cells, then repeat the test.',
}

/** A failing lead-acid battery rests lower by this, V of 12, with this multiple of its resistance. */
const failing = { lowerV: [0.4, 0.8, 1.4, 2.1], times: 3 } as const

const leadFailing: Fault = {
  id: 'lead-failing',
  title: 'Failing lead-acid battery',
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
  mend: 'Charge it alone, let it rest, and test it under load. Replace it if it fails.',
}

const startingWeak: Fault = {
  id: 'starting-weak',
  title: 'Weak starting battery',
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
  mend: 'Charge it alone and crank again. Replace it if the voltage still drops too far.',
}

/** A battery that fails its label holds this share of it, % (engineering default). */
const holdsOfLabel = [50, 88] as const

const capacityLow: Fault = {
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
    capacityAh: { ...rig.capacityAh, [at]: (fieldOf(rig.capacityAh, at) * percent) / 100 },
  }),
  mend: 'Charge it full and repeat the capacity test. Return the battery if it fails again.',
}

export default [weakPack, packGated, packAbsent, outOfBalance, leadFailing, startingWeak, capacityLow]
