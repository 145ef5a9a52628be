import { joinText } from '#core/units/format'
import { isCharging, compensation, type ChargeUnit, type Lane } from '#core/system/lanes'
import { likeForLike } from '#core/remedies/arrangements'
import { check, number, word, type Judgement, type Setting } from '#core/assessment/check'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { Origin } from '#core/system/facts'
import type { System } from '#core/system/system'

/** A bound on a setting, V, with its source. */
interface Bound {
  readonly volts: number
  readonly words: string
  readonly origin: Origin
}

type FoundSetting =
  | { readonly possible: true; readonly volts: number }
  | { readonly possible: false; readonly low: Bound; readonly high: Bound }

/**
 * A voltage above all lower and below all upper bounds, nearest to the wanted one; or the two bounds that
 * contradict.
 */
function settingWithin(low: readonly Bound[], high: readonly Bound[], preferredV: number): FoundSetting {
  const most = low.reduce((a, b) => (b.volts > a.volts ? b : a))
  const least = high.reduce((a, b) => (b.volts < a.volts ? b : a))
  if (most.volts > least.volts + 1e-9) return { possible: false, low: most, high: least }
  return {
    possible: true,
    volts: Math.round(Math.min(least.volts, Math.max(most.volts, preferredV)) * 100) / 100,
  }
}

/**
 * Settings of an adjustable unit that meet all limits at once: absorption, and float if the battery allows one.
 * Existing settings that meet them stay. The unit's menu is asked about only if a setting must change.
 */
function findSettings(
  unit: ChargeUnit,
  system: System,
): { readonly absorption: FoundSetting; readonly float: FoundSetting | null } {
  const { bank } = system
  const own = (
    field: 'absorptionLeastV' | 'absorptionMostV' | 'floatLeastV' | 'floatMostV',
    words: string,
  ): Bound => ({ volts: unit[field], words, origin: unit.$origin(field) })
  const { low, high } = absorptionBounds(unit, system)
  const absorption = kept(unit.absorptionV, low, high)
    ? ({ possible: true, volts: unit.absorptionV } as const)
    : settingWithin(
        [own('absorptionLeastV', 'the charger’s lowest setting'), ...low],
        [own('absorptionMostV', 'the charger’s highest setting'), ...high],
        bank.middleV,
      )
  if (unit.floatMode === 'off' || bank.each.floatAllowed === 'off') return { absorption, float: null }
  const most: readonly Bound[] = [
    { volts: bank.maxFloatV, words: 'the battery’s highest float', origin: bank.each.$origin('maxFloatV') },
  ]
  const float = kept(unit.floatV, [], most)
    ? ({ possible: true, volts: unit.floatV } as const)
    : settingWithin(
        [own('floatLeastV', 'the charger’s lowest float')],
        [own('floatMostV', 'the charger’s highest float'), ...most],
        bank.maxFloatV,
      )
  return { absorption, float }
}

/** Whether a voltage keeps to all bounds. */
const kept = (volts: number, low: readonly Bound[], high: readonly Bound[]): boolean =>
  low.every((bound) => volts >= bound.volts - 1e-9) && high.every((bound) => volts <= bound.volts + 1e-9)

/**
 * Bounds on the absorption from the battery and lead-acid that stays. A fixed compensation narrows them hot and
 * cold.
 */
function absorptionBounds(
  unit: ChargeUnit,
  { bank, one, rules }: System,
): { readonly low: readonly Bound[]; readonly high: readonly Bound[] } {
  const isFixed = unit.compensation === 'fixed'
  const shiftV = (celsius: number): number => (isFixed ? compensation(unit, bank, celsius).volts : 0)
  const lowest: Bound = {
    volts: bank.lowV - Math.min(0, shiftV(one.place.hottestC)),
    words: `the battery’s lowest charge voltage${isFixed ? ', compensated in the heat' : ''}`,
    origin: bank.each.$origin('chargeLowV'),
  }
  const highest: Bound = {
    volts: bank.highV - Math.max(0, shiftV(one.place.coldestC)),
    words: `the battery’s highest charge voltage${isFixed ? ', compensated in the cold' : ''}`,
    origin: bank.each.$origin(bank.highField),
  }
  const stop: Bound = {
    volts: rules.chargeStopV * bank.scale + 0.1,
    words: 'the charge stop of the lithium',
    origin: { kind: 'rule', text: 'shop rule: charge stop of a hybrid bank' },
  }
  const stays = one.use.mixed === 'hybrid' && one.use.chargeStop === 'yes'
  return { low: stays ? [lowest, stop] : [lowest], high: [highest] }
}

/** The current to set, or the unit's own. A solar controller without a limit gives the panels' current. */
function currentOf(unit: ChargeUnit, lane: Lane, mostA: number): readonly Setting[] {
  const isAdjustable = unit.currentLimit === 'adjustable'
  if (!isAdjustable && lane.kind === 'solar') return []
  const amps = isAdjustable ? Math.min(unit.ratedA, Math.floor(mostA)) : unit.ratedA
  return [{ label: 'Current', value: amps, unit: 'A' }]
}

/** The start signal for the DC-DC of a link. Other units need no setting. */
function startsOn(lane: Lane): readonly Setting[] {
  if (lane.kind !== 'alternator') return []
  const value = lane.link.signal === 'wire' ? 'ignition or alternator wire' : 'voltage'
  return [{ label: 'Starts on', value, unit: '' }]
}

/** A stage or a compensation that lithium has no use for: off, where it can be switched off. */
const unwanted = (stage: string, ifFixed: () => string): string =>
  stage === 'none' ? 'has none' : stage === 'fixed' ? ifFixed() : 'off'

/** The card of a unit with its settings found, in the order of its menu. */
export function settingsOf(unit: ChargeUnit, lane: Lane, system: System): readonly Setting[] {
  const { bank, q } = system
  const found = unit.profile === 'adjustable' ? findSettings(unit, system) : null
  const volts = (setting: FoundSetting | null | undefined, now: number): number =>
    setting?.possible ? setting.volts : now
  const floats = unit.floatMode === 'on' && bank.each.floatAllowed !== 'off'
  return [
    { label: 'Absorption', value: volts(found?.absorption, unit.absorptionV), unit: 'V' },
    { label: 'Absorption time, at most', value: unit.absorptionH, unit: 'h' },
    floats
      ? { label: 'Float', value: volts(found?.float, unit.floatV), unit: 'V' }
      : { label: 'Float', value: 'off', unit: '' },
    {
      label: 'Equalise, desulfation',
      value: unwanted(unit.equaliseStage, () => 'cannot be switched off'),
      unit: '',
    },
    {
      label: 'Temperature compensation',
      value: unwanted(unit.compensation, () => q(unit.compensationMv, 'mV/°C')),
      unit: '',
    },
    ...currentOf(unit, lane, bank.targetA),
    { label: 'Starts again at', value: Math.round(13.1 * bank.scale * 10) / 10, unit: 'V' },
    ...startsOn(lane),
  ]
}

/** The voltages of a unit set together; its float switched off where none meets every limit. */
const setAll = (unit: ChargeUnit, absorptionV: number, floatV: number | null): RemedyRef => ({
  id: 'charger.set-all',
  on: unit.$path,
  value: absorptionV,
  values: { absorptionV, ...(floatV === null ? { floatMode: 'off' } : { floatV }) },
})

const range = check({
  id: 'charger.range',
  title: 'Settings inside every limit',
  about: 'unit',
  why: joinText(
    'One setting must suit the battery hot and cold, ',
    'any lead-acid battery that stays, and the charger’s own menu.',
  ),
  judge({ unit, lane, name }, system) {
    const { q } = system
    if (!isCharging(unit) || unit.profile !== 'adjustable') return null
    const { bank } = system
    const { absorption, float } = findSettings(unit, system)
    if (!absorption.possible)
      return contradicts({ unit, name, system, stuck: { what: 'absorption', ...absorption } })
    if (float && !float.possible)
      return contradicts({ unit, name, system, stuck: { what: 'float', ...float } })
    const wanted = absorption.volts
    const floatV = float ? float.volts : null
    const floatWords = (): string => (floatV === null ? 'off' : q(floatV, 'V'))
    const wronglySet =
      wanted !== unit.absorptionV ||
      (floatV !== null && floatV !== unit.floatV) ||
      (unit.floatMode === 'on' && bank.each.floatAllowed === 'off')
    return {
      verdict: wronglySet ? 'suits-once-changed' : 'suits',
      compared: [
        number('absorption that meets all', wanted, 'V'),
        floatV === null ? word('float', 'off') : number('float that meets all', floatV, 'V'),
      ],
      limit: bank.each.$origin(bank.highField),
      formula: () =>
        joinText(
          wronglySet ? `settable ${q(unit.absorptionLeastV, 'V')} to ${q(unit.absorptionMostV, 'V')}, ` : '',
          `battery ${q(bank.lowV, 'V')} to ${q(bank.highV, 'V')}`,
          unit.compensation === 'fixed' ? ', less the compensation hot and cold' : '',
          ` → ${q(wanted, 'V')}; float ${floatWords()}`,
        ),
      summary: () =>
        joinText(
          `${name} has settings that meet every limit: absorption ${q(wanted, 'V')}, float ${floatWords()}`,
          wronglySet ? '. It is not set to these values yet' : '',
          '.',
        ),
      remedies: wronglySet ? [setAll(unit, wanted, floatV)] : [],
      settings: () => settingsOf(unit, lane, system),
    }
  },
})

/** Two limits leave no setting between them. */
function contradicts({
  unit,
  name,
  system: { bank, q },
  stuck,
}: {
  readonly unit: ChargeUnit
  readonly name: string
  readonly system: System
  readonly stuck: { readonly what: string; readonly low: Bound; readonly high: Bound }
}): Judgement {
  return {
    verdict: 'does-not-suit',
    compared: [number('at least', stuck.low.volts, 'V'), number('at most', stuck.high.volts, 'V')],
    limit: stuck.high.origin,
    formula: () =>
      joinText(
        `${stuck.what}: ${stuck.low.words} ${q(stuck.low.volts, 'V')} `,
        `> ${stuck.high.words} ${q(stuck.high.volts, 'V')}`,
      ),
    summary: () =>
      joinText(
        `${name} has no ${stuck.what} setting that meets all limits: `,
        `${stuck.low.words} is ${q(stuck.low.volts, 'V')} `,
        `and ${stuck.high.words} ${q(stuck.high.volts, 'V')}.`,
      ),
    remedies: () => [likeForLike(unit, bank)],
  }
}

export const checks = [range] as const
