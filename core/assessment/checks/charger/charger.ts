import { canBeSet, likeForLike, voltageRemedies } from '#core/remedies/arrangements'
import { formatShare, joinText, nameInSentence } from '#core/units/format'
import { check, number, word, type Judgement, type Subjects } from '#core/assessment/check'
import { type RemedyRef } from '#core/remedies/catalogue'
import type { ShopRules } from '#core/rules/rules'
import type { Origin } from '#core/system/facts'
import { compensation, type ChargeUnit, isCharging } from '#core/system/lanes'
import type { Bank } from '#core/system/bank'
import type { System } from '#core/system/system'
import { holdH, lowCharge, lowChargeWords } from './low-charge'
import type { Verdict } from '#core/system/verdict'

/** Whether its voltages move with temperature. */
const isCompensated = ({ compensation: mode }: ChargeUnit): boolean =>
  mode === 'switchable' || mode === 'fixed'

export const absorption = check({
  id: 'charger.absorption',
  title: 'Absorption voltage',
  about: 'unit',
  why: 'Below the window the battery never fills or balances. Above it the cells age and the BMS cuts out.',
  judge: (subject, system) => (subject.lane.kind === 'solar' ? null : absorptionOf(subject, system)),
})

/** Shared by the judgements of a unit's absorption. */
interface AbsorbingUnit {
  readonly subject: Subjects['unit']
  readonly system: System
  readonly volts: number
  readonly remedies: () => RemedyRef[]
  readonly cautions: () => string[]
}

/** A unit's absorption against the window; for solar controllers it is part of solar.voltage. */
export function absorptionOf(subject: Subjects['unit'], system: System): Judgement | null {
  const { unit } = subject
  if (!isCharging(unit)) return null
  const { bank, rules } = system
  const isForLead = unit.profile === 'fixed' || unit.profile === 'automatic'
  if (rules.chargerSchool === 'replace' && isForLead) return replacedAlways(subject, system)
  const of: AbsorbingUnit = {
    subject,
    system,
    volts: unit.absorptionV,
    remedies: () => absorptionRemedies(unit, system),
    cautions: () =>
      unit.profile === 'automatic'
        ? [
            joinText(
              `${subject.name} selects its profile automatically. `,
              'Test which profile it selects with lithium at rest.',
            ),
          ]
        : [],
  }
  if (of.volts > bank.highV) return absorbsOver(of)
  return of.volts < bank.lowV ? absorbsUnder(of) : absorbsWithin(of)
}

/** The verdict on a unit whose voltage is wrong. */
const wrongVoltage = (unit: ChargeUnit): Verdict => (canBeSet(unit) ? 'suits-once-changed' : 'does-not-suit')

const absorptionRemedies = (unit: ChargeUnit, { bank }: System): RemedyRef[] =>
  voltageRemedies(unit, bank, { id: 'charger.set-absorption', on: unit.$path, value: bank.middleV })

const replacedAlways = ({ unit, name }: Subjects['unit'], system: System): Judgement => ({
  verdict: 'does-not-suit',
  compared: [word('profile', 'for lead'), word('this job asks for', 'a lithium profile')],
  limit: { kind: 'rule', text: 'shop rule: charger without a lithium profile, replace always' },
  formula: () => 'no lithium profile → replace',
  summary: () => `${name} has no lithium profile. The shop replaces such chargers.`,
  remedies: () => absorptionRemedies(unit, system),
})

function absorbsOver({ subject, system, volts, remedies, cautions }: AbsorbingUnit): Judgement {
  const { bank, q } = system
  const [limitV, label, field] =
    volts > bank.bmsOverV
      ? ([bank.bmsOverV, 'BMS cuts at', 'bmsOverV'] as const)
      : volts > bank.absoluteV
        ? ([bank.absoluteV, 'never above', 'absoluteHighV'] as const)
        : ([bank.highV, 'charge at most', bank.highField] as const)
  return {
    verdict: wrongVoltage(subject.unit),
    compared: [number('charger reaches', volts, 'V'), number(label, limitV, 'V')],
    limit: bank.each.$origin(field),
    formula: () => `${q(volts, 'V')} − ${q(limitV, 'V')} = ${q(volts - limitV, 'V')} over`,
    summary: () => `${subject.name} absorbs at ${q(volts, 'V')}; the battery allows ${q(limitV, 'V')}.`,
    remedies,
    cautions,
  }
}

function absorbsUnder(of: AbsorbingUnit): Judgement {
  const { subject, system, volts, remedies, cautions } = of
  const { unit, lane, name } = subject
  const { bank, q } = system
  const hold = holdH(unit, lane)
  const low = lowCharge(lane, volts, unit.ratedA, hold, system)
  if (low.fills && low.balances) return fillsAllTheSame(of, hold, low.soc)
  const accepted = low.enough && unit.profile !== 'lithium'
  return {
    verdict: accepted ? 'suits-once-changed' : wrongVoltage(unit),
    compared: [number('charger reaches', volts, 'V'), number('charge at least', bank.lowV, 'V')],
    limit: bank.each.$origin('chargeLowV'),
    formula: () =>
      joinText(
        `${q(bank.lowV, 'V')} − ${q(volts, 'V')} = ${q(bank.lowV - volts, 'V')} under; `,
        `after ${q(hold, 'h')} ${formatShare(low.soc)} charged, loads off`,
      ),
    summary: () =>
      joinText(
        `${name} stops at ${q(volts, 'V')}, `,
        `below the window that starts at ${q(bank.lowV, 'V')}: ${lowChargeWords(low)}.`,
      ),
    remedies: () =>
      accepted && !canBeSet(unit) ? [{ id: 'charger.top-up', on: unit.$path }, ...remedies()] : remedies(),
    cautions,
  }
}

/** Below the maker's window, but held so long that the battery fills and balances. */
function fillsAllTheSame(
  { subject, system, volts, cautions }: AbsorbingUnit,
  hold: number,
  soc: number,
): Judgement {
  const { bank, q } = system
  return {
    verdict: 'suits',
    compared: [number('charger reaches', volts, 'V'), number('cells balance from', bank.balanceStartV, 'V')],
    limit: { kind: 'rule', text: 'shop rule: voltage at which cells begin to balance' },
    formula: () => `${q(volts, 'V')} held for ${q(hold, 'h')}: ${formatShare(soc)} charged`,
    summary: () =>
      joinText(
        `${subject.name} absorbs at ${q(volts, 'V')}. `,
        `That is below the maker’s ${q(bank.lowV, 'V')}, but it still fills the battery.`,
      ),
    cautions: () => [
      'Below the maker’s window the battery fills more slowly. The warranty may require the window.',
      ...cautions(),
    ],
  }
}

function absorbsWithin({ subject, system, volts, cautions }: AbsorbingUnit): Judgement {
  const { bank, q } = system
  return {
    verdict: 'suits',
    compared: [number('charger reaches', volts, 'V'), number('charge at most', bank.highV, 'V')],
    limit: bank.each.$origin(bank.highField),
    formula: () =>
      joinText(
        `${q(bank.lowV, 'V')} ≤ ${q(volts, 'V')} ≤ ${q(bank.highV, 'V')}, `,
        `${q(bank.highV - volts, 'V')} to spare`,
      ),
    summary: () =>
      joinText(
        `${subject.name} absorbs at ${q(volts, 'V')}, `,
        `within the window of ${q(bank.lowV, 'V')} to ${q(bank.highV, 'V')}.`,
      ),
    cautions,
  }
}

export const float = check({
  id: 'charger.float',
  title: 'Float',
  about: 'unit',
  why: 'A float above the resting voltage keeps the battery full day after day. That ages the cells.',
  judge: (subject, system) => (subject.lane.kind === 'solar' ? null : floatOf(subject, system)),
})

/** A unit's float against the highest allowed; for solar controllers it is part of solar.voltage. */
export function floatOf({ unit, name }: Subjects['unit'], { bank, one, q }: System): Judgement | null {
  if (!isCharging(unit)) return null
  if (unit.floatMode === 'off') return stopsAfterAbsorption(name, bank)
  if (bank.each.floatAllowed === 'off') return floatsUnwanted(unit, name, bank)
  const coldV = isCompensated(unit) ? compensation(unit, bank, one.place.coldestC).volts : 0
  const volts = unit.floatV + Math.max(0, coldV)
  const over = volts > bank.maxFloatV
  const holdsFull = volts > bank.ocv(0.99)
  return {
    verdict: !over ? 'suits' : canBeSet(unit) ? 'suits-once-changed' : 'does-not-suit',
    compared: [number('floats at', volts, 'V'), number('float at most', bank.maxFloatV, 'V')],
    limit: bank.each.$origin('maxFloatV'),
    formula: () =>
      over
        ? `${q(volts, 'V')} − ${q(bank.maxFloatV, 'V')} = ${q(volts - bank.maxFloatV, 'V')} over`
        : `${q(bank.maxFloatV, 'V')} − ${q(volts, 'V')} = ${q(bank.maxFloatV - volts, 'V')} to spare`,
    summary: () =>
      joinText(
        `${name} floats at ${q(volts, 'V')}${coldV > 0 ? ' in the cold' : ''}; `,
        `the battery allows ${q(bank.maxFloatV, 'V')}.`,
      ),
    remedies: () =>
      over
        ? voltageRemedies(unit, bank, {
            id: 'charger.set-float',
            on: unit.$path,
            value: Math.round((bank.maxFloatV - Math.max(0, coldV)) * 10) / 10,
          })
        : [],
    cautions: () =>
      over || !holdsFull
        ? []
        : [
            `The float of ${nameInSentence(name)} keeps the battery full. Without it the battery lasts longer.`,
          ],
  }
}

function stopsAfterAbsorption(name: string, bank: Bank): Judgement {
  return {
    verdict: 'suits',
    compared: [word('after absorption', 'stops'), word('battery needs', 'no float')],
    limit: bank.each.$origin('floatAllowed'),
    formula: () => 'no float stage',
    summary: () => `${name} stops after absorption, which suits lithium best.`,
  }
}

function floatsUnwanted(unit: ChargeUnit, name: string, bank: Bank): Judgement {
  return {
    verdict: canBeSet(unit) ? 'suits-once-changed' : 'does-not-suit',
    compared: [word('after absorption', 'floats'), word('battery allows', 'no float')],
    limit: bank.each.$origin('floatAllowed'),
    formula: () => 'float on ≠ float off',
    summary: () => `${name} floats; this battery needs float off.`,
    remedies: () => voltageRemedies(unit, bank, { id: 'charger.float-off', on: unit.$path }),
  }
}

/** The limit that a stage of equalising exceeds, and the rule that makes it a hard stop. */
function hardStopOf({ text }: Origin, { chargerSchool }: ShopRules): Origin {
  const school = chargerSchool === 'window' ? 'allowed inside the window' : 'replace always'
  return {
    kind: 'rule',
    text: `${text}; a stage that cannot be switched off is a hard stop (school: ${school})`,
  }
}

export const equalise = check({
  id: 'charger.equalise',
  title: 'Equalise, desulfation or pulse',
  about: 'unit',
  why: joinText(
    'This stage is meant for lead-acid. ',
    'On lithium the BMS cuts out repeatedly and the charge never completes.',
  ),
  judge({ unit, name }, { bank, rules, q }) {
    if (!isCharging(unit)) return null
    const stage = unit.equaliseStage
    if (stage === 'none' || stage === 'off') return equalisesNever(stage, name)
    const volts = unit.equaliseV
    const [limitV, origin] = limitPassed(volts, bank)
    const lowest = unit.equaliseLeastV
    const settable = lowest !== null && lowest <= bank.highV
    const over = volts > bank.highV
    const hardStop = stage === 'fixed' && !settable
    const replace = likeForLike(unit, bank)
    const bms = (): string =>
      volts > bank.bmsOverV ? `; the BMS cuts at ${q(bank.bmsOverV, 'V')} in the middle of it` : ''
    return {
      verdict: hardStop ? 'does-not-suit' : over ? 'suits-once-changed' : 'suits',
      compared: [number('charger reaches', volts, 'V'), number('battery allows', limitV, 'V')],
      limit: hardStop ? hardStopOf(origin, rules) : origin,
      formula: () =>
        joinText(
          `${q(volts, 'V')} − ${q(limitV, 'V')} = `,
          volts > limitV ? `${q(volts - limitV, 'V')} over` : `${q(limitV - volts, 'V')} under`,
          bms(),
        ),
      summary: () =>
        joinText(
          `${name} equalises at ${q(volts, 'V')}; the battery allows ${q(limitV, 'V')}`,
          hardStop ? '; the stage cannot be switched off' : '',
          '.',
        ),
      remedies: hardStop
        ? [replace]
        : [
            stage === 'fixed'
              ? { id: 'charger.set-equalise', on: unit.$path, value: Math.max(lowest ?? 0, bank.middleV) }
              : { id: 'charger.equalise-off', on: unit.$path },
            replace,
          ],
    }
  },
})

function equalisesNever(stage: 'none' | 'off', name: string): Judgement {
  return {
    verdict: 'suits',
    compared: [word('equalise', stage === 'none' ? 'has none' : 'off'), word('battery allows', 'none')],
    limit: { kind: 'physics', text: 'LFP has nothing to equalise by overcharging' },
    formula: () => 'no equalise stage runs',
    summary: () =>
      stage === 'none' ? `${name} has no equalise stage.` : `${name} has its equalise stage switched off.`,
    cautions: () =>
      stage === 'off'
        ? [`Check the equalise stage of ${nameInSentence(name)} after every reset: it can switch itself on.`]
        : [],
  }
}

/** The highest limit that a stage passes, with its source; the window if it passes none. */
function limitPassed(volts: number, bank: Bank): readonly [number, Origin] {
  if (volts > bank.absoluteV) return [bank.absoluteV, bank.each.$origin('absoluteHighV')]
  return volts > bank.bmsOverV
    ? [bank.bmsOverV, bank.each.$origin('bmsOverV')]
    : [bank.highV, bank.each.$origin(bank.highField)]
}

export const temperatureCompensation = check({
  id: 'charger.temperature-compensation',
  title: 'Temperature compensation',
  about: 'unit',
  why: joinText(
    'Compensation is for lead-acid. ',
    'It raises the voltage above the limit in the cold and lowers it below the window in heat.',
  ),
  judge({ unit, name }, { bank, one, q }) {
    if (!isCharging(unit)) return null
    if (unit.compensation === 'none' || unit.compensation === 'off')
      return keepsItsVoltage(unit.compensation, name)
    const at = (celsius: number): number => unit.absorptionV + compensation(unit, bank, celsius).volts
    const { coldestC, hottestC } = one.place
    const [coldV, hotV] = [at(coldestC), at(hottestC)]
    const overV = coldV - bank.highV
    const underV = bank.lowV - hotV
    const bad = overV > 0 || underV > 0
    const cold = overV >= underV
    const [celsius, volts, limitV] = cold ? [coldestC, coldV, bank.highV] : [hottestC, hotV, bank.lowV]
    const settable = unit.compensation === 'switchable' || unit.profile === 'adjustable'
    return {
      verdict: !bad ? 'suits' : settable ? 'suits-once-changed' : 'does-not-suit',
      compared: [
        number(`reaches at ${q(celsius, '°C')}`, volts, 'V'),
        number(cold ? 'charge at most' : 'charge at least', limitV, 'V'),
      ],
      limit: bank.each.$origin(cold ? bank.highField : 'chargeLowV'),
      formula: () =>
        joinText(
          `${q(unit.absorptionV, 'V')} + ${compensation(unit, bank, celsius).leadCells} × `,
          `${q(unit.compensationMv, 'mV/°C')} × (25 − ${q(celsius, '°C')}) = ${q(volts, 'V')}`,
        ),
      summary: () =>
        bad
          ? joinText(
              `${name} follows the temperature: `,
              `${q(coldV, 'V')} at ${q(coldestC, '°C')} and ${q(hotV, 'V')} at ${q(hottestC, '°C')}; `,
              `the window is ${q(bank.lowV, 'V')} to ${q(bank.highV, 'V')}.`,
            )
          : `${name} stays within the window from ${q(coldestC, '°C')} to ${q(hottestC, '°C')}.`,
      remedies: bad
        ? [
            ...(settable ? [{ id: 'charger.compensation-off', on: unit.$path } as const] : []),
            likeForLike(unit, bank),
          ]
        : [],
    }
  },
})

function keepsItsVoltage(compensation: 'none' | 'off', name: string): Judgement {
  return {
    verdict: 'suits',
    compared: [
      word('compensation', compensation === 'none' ? 'has none' : 'off'),
      word('battery needs', 'none'),
    ],
    limit: { kind: 'physics', text: 'the charge voltage of LFP does not depend on temperature' },
    formula: () => 'voltage is the same hot and cold',
    summary: () => `${name} keeps the same voltage hot and cold.`,
  }
}

export const checks = [absorption, float, equalise, temperatureCompensation] as const
