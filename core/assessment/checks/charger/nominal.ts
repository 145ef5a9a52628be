import { joinText } from '#core/units/format'
import { check, number, type Judgement } from '#core/assessment/check'
import type { Origin } from '#core/system/facts'
import type { View } from '#core/system/scene'
import { startingV } from '#core/system/starting'
import type { System } from '#core/system/system'
import type { RemedyRef } from '#core/remedies/catalogue'

/** A voltage that such a part works at lies between these shares of the nominal voltage it is made for. */
const worksBetween = [0.8, 1.4] as const

/** Whether a voltage of a part belongs to a system of another nominal voltage. */
const isOfAnother = (volts: number, nominalV: number): boolean =>
  volts < nominalV * worksBetween[0] || volts > nominalV * worksBetween[1]

/** The nominal voltage a working voltage belongs to, V. */
const nominalOf = (volts: number): number =>
  [12, 24, 36, 48].reduce((a, b) => (Math.abs(volts / 1.15 - b) < Math.abs(volts / 1.15 - a) ? b : a))

/** Nominal voltage of a unit, by its label or its working voltage, against that of its battery, V. */
function madeForV(label: string, worksAtV: number, batteryV: number): number {
  if (label !== 'same') return Number(label)
  return isOfAnother(worksAtV, batteryV) ? nominalOf(worksAtV) : batteryV
}

/**
 * A part made for a voltage, against the battery it stands on.
 * @param worksAt evidence of the nominal voltage, in words
 * @param madeFor how its maker's voltage is called in a sentence
 */
function againstBattery(
  name: string,
  made: number,
  { bank, q }: System,
  {
    limit,
    worksAt,
    madeFor,
    remedy,
  }: {
    readonly limit: Origin
    readonly worksAt: () => string
    readonly madeFor: 'made for' | 'regulated for'
    readonly remedy: () => RemedyRef
  },
): Judgement {
  const wrong = made !== bank.nominalV
  return {
    verdict: wrong ? 'does-not-suit' : 'suits',
    compared: [number(madeFor, made, 'V'), number('battery', bank.nominalV, 'V')],
    limit,
    formula: () => `${worksAt()} → ${q(made, 'V')}; battery ${q(bank.nominalV, 'V')}`,
    summary: () =>
      wrong
        ? `${name} is ${madeFor} ${made} V and the battery is ${bank.nominalV} V.`
        : `${name} is ${madeFor} the ${bank.nominalV} V of the battery.`,
    remedies: wrong ? [remedy()] : [],
  }
}

const unitNominal = check({
  id: 'unit.nominal',
  title: 'Made for this voltage',
  about: 'unit',
  why: 'A unit for another voltage does nothing at best. At worst it burns what it feeds.',
  judge({ unit, lane, name }, system) {
    if (lane.kind !== 'charger' && lane.kind !== 'solar') return null
    const { q, bank } = system
    const made = madeForV(
      lane.kind === 'charger' ? lane.charger.nominalV : lane.solar.nominalV,
      unit.absorptionV,
      bank.nominalV,
    )
    return againstBattery(name, made, system, {
      limit: bank.each.$origin('nominalV'),
      worksAt: () => `absorbs at ${q(unit.absorptionV, 'V')}`,
      madeFor: 'made for',
      remedy: () => ({
        id: 'charger.replace',
        on: unit.$path,
        value: unit.ratedA,
        values: { absorptionV: bank.middleV, nominalV: String(bank.nominalV) },
      }),
    })
  },
})

const inverterNominal = check({
  id: 'inverter.nominal',
  title: 'Made for this voltage',
  about: 'inverter',
  why: 'An inverter for another voltage does not start, or fails when you connect it.',
  judge({ inverter, name }, system) {
    const { q, bank } = system
    const made = madeForV(inverter.nominalV, inverter.cutOffV * 1.15, bank.nominalV)
    return againstBattery(name, made, system, {
      limit: bank.each.$origin('nominalV'),
      worksAt: () => `stops at ${q(inverter.cutOffV, 'V')}`,
      madeFor: 'made for',
      remedy: () => ({
        id: 'inverter.replace',
        on: inverter.$path,
        value: inverter.continuousW,
        values: { nominalV: String(bank.nominalV) },
      }),
    })
  },
})

/** Loss of a converter, as a share (engineering default). */
const converterEfficiency = 0.9

const loadNominal = check({
  id: 'load.nominal',
  title: 'Made for this voltage',
  about: 'dcLoad',
  why: 'A load made for half the voltage burns. A load made for twice the voltage does nothing.',
  judge({ load, name }, system) {
    if (load.nominalV === 'same') return null
    const { bank } = system
    const made = Number(load.nominalV)
    return againstBattery(name, made, system, {
      limit: load.$origin('nominalV'),
      worksAt: () => 'its label',
      madeFor: 'made for',
      remedy: () => ({
        id: 'load.converter',
        on: load.$path,
        value: load.amps,
        values: { madeForV: made, drawsA: (load.amps * made) / bank.nominalV / converterEfficiency },
      }),
    })
  },
})

const sourceNominal = check({
  id: 'source.nominal',
  title: 'Made for this voltage',
  about: 'source',
  why: 'A generator regulated for another voltage overcharges the battery or never charges it.',
  judge({ lane: { source }, name }, system) {
    const { q, bank } = system
    const made = madeForV('same', source.regulatorV, bank.nominalV)
    return againstBattery(name, made, system, {
      limit: source.$origin('regulatorV'),
      worksAt: () => q(source.regulatorV, 'V'),
      madeFor: 'regulated for',
      remedy: () => ({ id: 'source.regulator', on: source.$path, value: bank.middleV }),
    })
  },
})

/**
 * Most a lead battery takes at 25 °C by its kind, V at 12 V, and most a stage of equalising; null if none is borne.
 */
const leadMostV = { flooded: 14.8, calcium: 14.8, agm: 14.7, gel: 14.4 } as const
const leadEqualisesV = { flooded: 16, calcium: 16, agm: null, gel: null } as const
/** The electronics of a vehicle bear no more than this, V at 12 V (engineering default). */
const electronicsMostV = 15.5

/** A charger against the tolerance of its starting battery and of the vehicle. */
interface StartLimits {
  /** Most at absorption, V. */
  readonly mostV: number
  readonly isOver: boolean
  readonly equalises: boolean
  /** Voltage of its equalise stage, and the tolerated voltage, V. */
  readonly stageV: number
  readonly stageMostV: number
  readonly isOverStage: boolean
}

function startLimits(
  charger: View<'chargers'>,
  starting: View<'startingBatteries'>,
  scale: number,
): StartLimits {
  const { chemistry } = starting
  const isLithium = chemistry === 'lithium'
  const mostV = (isLithium ? 14.6 : leadMostV[chemistry]) * scale
  const equalises = charger.equaliseStage === 'switchable' || charger.equaliseStage === 'fixed'
  const bears = isLithium ? null : leadEqualisesV[chemistry]
  const stageMostV = bears === null ? mostV : Math.min(bears, electronicsMostV) * scale
  const stageV = equalises ? charger.equaliseV : 0
  const isOverStage = equalises && stageV > stageMostV
  return { mostV, isOver: charger.absorptionV > mostV, equalises, stageV, stageMostV, isOverStage }
}

const canSetAbsorption = ({ profile }: View<'chargers'>): boolean =>
  profile === 'adjustable' || profile === 'selectable'

/** The stage switched off or the absorption set where that can be; another charger in any case. */
function startRemedies(charger: View<'chargers'>, limits: StartLimits, scale: number): RemedyRef[] {
  const { mostV, isOver, isOverStage } = limits
  const canSet = canSetAbsorption(charger) && charger.$entered('feeds') !== 'both'
  return [
    ...(isOverStage && charger.equaliseStage === 'switchable'
      ? [{ id: 'charger.equalise-off', on: charger.$path } as const]
      : []),
    ...(isOver && canSet ? [{ id: 'charger.set-absorption', on: charger.$path, value: mostV } as const] : []),
    elseCharger(charger, Math.min(14.4 * scale, mostV)),
  ]
}

const typicalLimit: Origin = {
  kind: 'assumed',
  text: joinText(
    'typical for this kind of starting battery and the vehicle’s electronics; ',
    'the makers’ sheets decide',
  ),
}

const startCharger = check({
  id: 'start.charger',
  title: 'Charger of the starting battery',
  about: 'startCharger',
  why: 'Settings for the house bank can be too high for the starting battery and the vehicle’s electronics.',
  judge({ charger, starting, name }, system) {
    const { q } = system
    if (starting.present !== 'yes') return null
    const nominalV = startingV(starting, system)
    const scale = nominalV / 12
    const isShared = charger.$entered('feeds') === 'both'
    const made = madeForV(charger.nominalV, charger.absorptionV, nominalV)
    if (made !== nominalV) return voltageMismatch({ charger, name, made, starting, system })
    const limits = startLimits(charger, starting, scale)
    const { mostV, isOver: over, equalises, stageV, stageMostV, isOverStage: overStage } = limits
    const cure =
      isShared || (overStage && !over ? charger.equaliseStage === 'switchable' : canSetAbsorption(charger))
    return {
      verdict: !over && !overStage ? 'suits' : cure ? 'suits-once-changed' : 'does-not-suit',
      compared: overStage
        ? [number('equalises at', stageV, 'V'), number('at most', stageMostV, 'V')]
        : [number('absorbs at', charger.absorptionV, 'V'), number('at most', mostV, 'V')],
      limit: typicalLimit,
      formula: () => {
        const stage = `; equalises at ${q(stageV, 'V')} ${overStage ? '>' : '≤'} ${q(stageMostV, 'V')}`
        return joinText(
          `absorbs at ${q(charger.absorptionV, 'V')} ${over ? '>' : '≤'} ${q(mostV, 'V')}`,
          equalises ? stage : '',
        )
      },
      summary: () =>
        overStage
          ? joinText(
              `${name} feeds the starting battery and equalises it at ${q(stageV, 'V')}; `,
              `battery and vehicle tolerate ${q(stageMostV, 'V')}.`,
            )
          : over
            ? joinText(
                `${name} absorbs at ${q(charger.absorptionV, 'V')}; `,
                `the starting battery tolerates ${q(mostV, 'V')}.`,
              )
            : `${name} stays within the limits of the starting battery and the vehicle.`,
      remedies: over || overStage ? startRemedies(charger, limits, scale) : [],
    }
  },
})

/** A charger of another voltage than the starting battery. */
function voltageMismatch({
  charger,
  name,
  made,
  starting,
  system,
}: {
  readonly charger: View<'chargers'>
  readonly name: string
  readonly made: number
  readonly starting: View<'startingBatteries'>
  readonly system: System
}): Judgement {
  const { q } = system
  const nominalV = startingV(starting, system)
  return {
    verdict: 'does-not-suit',
    compared: [number('made for', made, 'V'), number('starting battery', nominalV, 'V')],
    limit: starting.$origin('nominalV'),
    formula: () => `absorbs at ${q(charger.absorptionV, 'V')}; battery ${q(nominalV, 'V')}`,
    summary: () => `${name} is made for ${made} V and the starting battery is ${nominalV} V.`,
    remedies: [elseCharger(charger, (14.4 * nominalV) / 12)],
  }
}

/** A charger of both batteries that suits only the house bank leaves the other one; one of its own is replaced. */
const elseCharger = (charger: View<'chargers'>, absorptionV: number): RemedyRef =>
  charger.$entered('feeds') === 'both'
    ? { id: 'charger.house-only', on: charger.$path }
    : { id: 'charger.replace', on: charger.$path, value: charger.ratedA, values: { absorptionV } }

export const checks = [unitNominal, inverterNominal, loadNominal, sourceNominal, startCharger] as const
