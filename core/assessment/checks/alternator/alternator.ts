import { caseLimitC, warmLossV } from '#core/physics/alternator'
import { addDcdc, holdBack, unjoined } from '#core/remedies/arrangements'
import { listInSentence, formatShare, joinText, nameInSentence } from '#core/units/format'
import { check, number, word, type Judgement } from '#core/assessment/check'
import { type RemedyRef } from '#core/remedies/catalogue'
import {
  allDayA,
  allDayBudget,
  allDayWords,
  availableA,
  foldsBack,
  type Speed,
} from '#core/system/alternators'
import type { Bank } from '#core/system/bank'
import { acceptanceA, demandA, highestAlternatorV } from '#core/system/currents'
import { cableOhm, isolatorDropV, isStraight, type AlternatorLane } from '#core/system/lanes'
import type { View } from '#core/system/scene'
import type { System } from '#core/system/system'
import { lowCharge, lowChargeWords } from '../charger/low-charge'
import { afterCutOut, spikeRemedies } from './cut-out'

/**
 * Voltage an alternator reaches at the battery at the end of the charge: less the isolator's drop and the
 * cable's at the tail current.
 */
export const atBatteryV = (lane: AlternatorLane, { bank, rules }: System): number =>
  lane.alternator.regulatorV - isolatorDropV(lane) - bank.tailA * cableOhm(lane, rules)

const voltage = check({
  id: 'alternator.voltage',
  title: 'Voltage at the battery',
  about: 'alternator',
  why: 'The voltage at the battery counts, not the regulator setting. Cable and isolator reduce it.',
  judge({ lane, name }, system) {
    const { q } = system
    // A computer moves the voltage, so there is no single one: alternator.computer-controlled checks its swing.
    if (!isStraight(lane) || lane.alternator.regulator === 'computer') return null
    const { bank, rules } = system
    const { alternator } = lane
    const drop = isolatorDropV(lane)
    const cableDrop = bank.tailA * cableOhm(lane, rules)
    const coolV = atBatteryV(lane, system)
    const warmLoss =
      alternator.regulator === 'compensated' ? warmLossV(caseLimitC, Number(alternator.nominalV) / 12) : 0
    // Too much is checked cool, too little warm.
    const volts = coolV > bank.highV ? coolV : coolV - warmLoss
    const regulatorFor = bank.middleV + drop + cableDrop
    const settable = alternator.regulator === 'external'
    const set: RemedyRef = {
      id: settable ? 'alternator.set-regulator' : 'alternator.external-regulator',
      on: alternator.$path,
      value: Math.round(regulatorFor * 10) / 10,
    }
    const formula = (): string =>
      joinText(
        `${q(alternator.regulatorV, 'V')}${warmLoss > 0 && volts < coolV ? ` − ${q(warmLoss, 'V')} when warm` : ''} `,
        `− ${q(drop, 'V')} isolator − ${q(cableDrop, 'V')} cable at ${q(bank.tailA, 'A')} = ${q(volts, 'V')}`,
      )
    const arriving: Arriving = { lane, name, system, volts, drop, settable, set, formula }
    if (volts > bank.highV) return arrivesOver(arriving)
    if (volts < bank.lowV) return arrivesUnder(arriving)
    return {
      verdict: 'suits',
      compared: [number('arrives', volts, 'V'), number('charge at most', bank.highV, 'V')],
      limit: bank.each.$origin(bank.highField),
      formula,
      summary: () =>
        `${name} puts ${q(volts, 'V')} on the battery, within ${q(bank.lowV, 'V')} to ${q(bank.highV, 'V')}.`,
    }
  },
})

/** Shared by the judgements of an alternator's voltage. */
interface Arriving {
  readonly lane: AlternatorLane
  readonly name: string
  readonly system: System
  /** At the battery, V. */
  readonly volts: number
  /** Lost in an isolator, V. */
  readonly drop: number
  readonly settable: boolean
  /** Sets the regulator so that the middle of the window arrives. */
  readonly set: RemedyRef
  readonly formula: () => string
}

function arrivesOver({ lane, name, system, volts, settable, set, formula }: Arriving): Judgement {
  const { bank, q } = system
  return {
    verdict: settable ? 'suits-once-changed' : 'does-not-suit',
    compared: [number('arrives', volts, 'V'), number('charge at most', bank.highV, 'V')],
    limit: bank.each.$origin(bank.highField),
    formula,
    summary: () => `${name} puts ${q(volts, 'V')} on the battery, which allows ${q(bank.highV, 'V')}.`,
    remedies: () => (settable ? [set, addDcdc(lane, system)] : [addDcdc(lane, system), set]),
  }
}

function arrivesUnder({ lane, name, system, volts, drop, settable, set, formula }: Arriving): Judgement {
  const { bank, rules, q } = system
  const { alternator } = lane
  const low = lowCharge(lane, volts, availableA(alternator, 'cruise', rules), alternator.driveHours, system)
  const lowLossHelps = drop > rules.lowLossDropV && volts + drop - rules.lowLossDropV >= bank.lowV
  const lowLoss: RemedyRef = {
    id: 'link.low-loss-isolator',
    on: lane.link.$path,
    value: rules.lowLossDropV,
  }
  if (low.fills && low.balances)
    return {
      verdict: 'suits',
      compared: [number('arrives', volts, 'V'), number('cells balance from', bank.balanceStartV, 'V')],
      limit: { kind: 'rule', text: 'shop rule: voltage at which cells begin to balance' },
      formula,
      summary: () =>
        joinText(
          `${name} puts ${q(volts, 'V')} on the battery. `,
          `That is below the maker’s ${q(bank.lowV, 'V')}, but a day’s run still fills it.`,
        ),
    }
  const accepted = low.enough && !lowLossHelps && !settable
  return {
    verdict: lowLossHelps || settable || accepted ? 'suits-once-changed' : 'does-not-suit',
    compared: [number('arrives', volts, 'V'), number('charge at least', bank.lowV, 'V')],
    limit: bank.each.$origin('chargeLowV'),
    formula,
    summary: () =>
      joinText(
        `${name} puts ${q(volts, 'V')} on the battery, `,
        `which needs ${q(bank.lowV, 'V')}: ${lowChargeWords(low)}.`,
      ),
    remedies: () => [
      ...(lowLossHelps ? [lowLoss] : []),
      ...(settable ? [set] : []),
      ...(accepted ? [{ id: 'charger.top-up', on: lane.link.$path } as const] : []),
      addDcdc(lane, system),
      ...(settable ? [] : [set]),
    ],
  }
}

const speeds: readonly Speed[] = ['idle', 'cruise']
const socs = [0.2, 0.5, 0.8] as const

/** Current that the battery takes of an alternator, and its all-day current, for each speed and state of charge. */
const loadCases = (lane: AlternatorLane, system: System) =>
  speeds.flatMap((speed) => {
    const taken = socs.map((soc) => ({ soc, takesA: acceptanceA(lane, soc, speed, system) }))
    const borneA = allDayA(lane.alternator, speed, system.rules)
    return taken.map(({ soc, takesA }) => ({ speed, soc, takesA, allDayA: borneA, overA: takesA - borneA }))
  })

/**
 * Current into the battery: the available current, or the current that voltage and resistance allow if that is
 * less.
 */
function takenWords(
  lane: AlternatorLane,
  { speed, soc, takesA }: ReturnType<typeof loadCases>[number],
  system: System,
): string {
  const { bank, rules, q } = system
  const { alternator } = lane
  return joinText(
    `min(${q(availableA(alternator, speed, rules), 'A')} there at ${speed}, `,
    `(${q(highestAlternatorV(alternator) - isolatorDropV(lane), 'V')} − ${q(bank.ocv(soc), 'V')}) ÷ `,
    `${q((bank.ohm + cableOhm(lane, rules)) * 1000, 'mΩ')} = `,
    `${q(demandA(lane, soc, system), 'A')}) = ${q(takesA, 'A')}`,
  )
}

const acceptance = check({
  id: 'alternator.acceptance',
  title: 'Charge current with nothing to limit it',
  about: 'alternator',
  why: joinText(
    'Lithium accepts all available current until it is nearly full. ',
    'An alternator at full output for an hour overheats.',
  ),
  judge({ lane, name }, system) {
    const { q } = system
    if (!isStraight(lane)) return null
    const { bank, rules } = system
    const { alternator } = lane
    const cases = loadCases(lane, system)
    const most = cases.reduce((a, b) => (b.overA > a.overA ? b : a))
    const hot = most.overA > 0 && !foldsBack(alternator)
    const peakA = Math.max(...cases.map((c) => c.takesA))
    const overBattery = !hot && peakA > bank.largestA
    const limitA = overBattery ? bank.largestA : most.allDayA
    const takesA = overBattery ? peakA : most.takesA
    const allDay = allDayWords(alternator, most.speed, rules, q)
    return {
      verdict: hot || overBattery ? 'suits-once-changed' : 'suits',
      compared: [
        number('battery takes', takesA, 'A'),
        number(overBattery ? 'battery allows' : 'alternator all day', limitA, 'A'),
      ],
      limit: overBattery ? bank.each.$origin('largestChargeA') : allDay.origin,
      formula: () =>
        joinText(
          `${takenWords(lane, most, system)}; `,
          `all day ${allDay.formula} − ${q(alternator.vehicleDrawA, 'A')} = ${q(most.allDayA, 'A')}. `,
          `${cases.map((c) => `${c.speed} at ${formatShare(c.soc)}: ${q(c.takesA, 'A')}`).join(', ')}`,
        ),
      summary: () =>
        hot
          ? joinText(
              `The battery draws ${q(takesA, 'A')} at ${most.speed}; `,
              `${nameInSentence(name)} can deliver ${q(limitA, 'A')} all day without overheating.`,
            )
          : overBattery
            ? `The battery draws ${q(takesA, 'A')}, and its maker allows ${q(limitA, 'A')}.`
            : most.overA > 0
              ? joinText(
                  `The battery would draw ${q(most.takesA, 'A')} at ${most.speed}. `,
                  `The regulator of ${nameInSentence(name)} reduces it as the case warms up.`,
                )
              : joinText(
                  `The battery takes ${q(most.takesA, 'A')} at ${most.speed}, `,
                  `within the ${q(most.allDayA, 'A')} that ${nameInSentence(name)} delivers all day.`,
                ),
      remedies: () => (hot || overBattery ? holdBack(lane, system) : []),
    }
  },
})

const spare = check({
  id: 'alternator.spare',
  title: 'Current to spare for charging',
  about: 'alternator',
  why: 'Engine, lights and fans take their share first. Only the rest is available for charging.',
  judge({ lane, name }, { bank, rules, q }) {
    const { alternator } = lane
    const leastA = Math.min(rules.spareLeastA, bank.recommendedA / 2)
    const { amps: spareA, origin, formula: budget } = allDayBudget(alternator, rules, q)
    const none = spareA < leastA
    const bySpeed = (['idle', 'cruise'] as const).map(
      (speed) => `${q(allDayA(alternator, speed, rules), 'A')} at ${speed}`,
    )
    return {
      verdict: none ? 'does-not-suit' : 'suits',
      compared: [number('to spare', spareA, 'A'), number('worth wiring for', leastA, 'A')],
      limit: origin,
      formula: () =>
        joinText(
          `${budget} − ${q(alternator.vehicleDrawA, 'A')} of the vehicle = ${q(spareA, 'A')}; `,
          `all day ${bySpeed.join(', ')}`,
        ),
      summary: () =>
        none
          ? `${name} has ${q(spareA, 'A')} to spare over a drive, too little to be worth wiring.`
          : joinText(
              `${name} has ${q(spareA, 'A')} to spare for charging over a drive: `,
              `all day ${listInSentence(bySpeed)}.`,
            ),
      remedies: none ? [unjoined(lane)] : [],
    }
  },
})

const loadDump = check({
  id: 'alternator.load-dump',
  title: 'Cut-out while charging',
  about: 'alternator',
  why: 'An alternator that loses its only battery sends a spike of tens of volts into everything connected.',
  judge({ lane, name }, system) {
    const { bank, q } = system
    const { link } = lane
    if (link.kind === 'none') return null
    const { left, opens, isShunted, isSafe, by } = afterCutOut(lane, system)
    return {
      verdict: isSafe ? 'suits' : 'does-not-suit',
      compared: [
        word('left on the output', left ? 'lead battery' : isSafe ? 'protected' : 'nothing'),
        word('must be left', 'a battery or a protector'),
      ],
      limit: { kind: 'physics', text: 'the field of an alternator decays slowly' },
      formula: () =>
        joinText(
          opens
            ? 'the relay opens under load'
            : link.kind === 'dcdc'
              ? 'the DC-DC stops'
              : `BMS opens at ${q(bank.bmsOverV, 'V')}`,
          ` → on the output: ${by}`,
        ),
      summary: () =>
        isSafe
          ? `If the battery cuts out, ${by}.`
          : opens
            ? `Each time the relay opens, ${nameInSentence(name)} has no other battery on its output.`
            : `If the BMS opens, ${nameInSentence(name)} has no other battery on its output.`,
      cautions: () =>
        isShunted && !left
          ? ['Ask the maker of the regulator whether the machine may run without a battery.']
          : [],
      remedies: isSafe ? [] : spikeRemedies(lane, opens),
    }
  },
})

/**
 * Share of the drive at which the voltage that reaches the battery is inside the window, from the tally;
 * spread evenly between lowest and highest if there is none.
 */
function shareInWindow(alternator: View<'alternators'>, dropV: number, bank: Bank): number {
  const [low, high] = [bank.lowV + dropV, bank.highV + dropV]
  const tally = alternator.driveTally
  if (tally && tally.length > 0) {
    const total = tally.reduce((sum, row) => sum + row.minutes, 0)
    const inside = tally.reduce(
      (sum, row) => sum + (row.volts >= low && row.volts <= high ? row.minutes : 0),
      0,
    )
    return total > 0 ? inside / total : 0
  }
  const { lowestV, highestV } = alternator
  const overlap = Math.max(0, Math.min(high, highestV) - Math.max(low, lowestV))
  return highestV > lowestV ? overlap / (highestV - lowestV) : Number(lowestV >= low && lowestV <= high)
}

const computerControlled = check({
  id: 'alternator.computer-controlled',
  title: 'Computer-controlled voltage',
  about: 'alternator',
  why: joinText(
    'The computer lowers the voltage to save fuel and raises it when coasting. ',
    'Low dips stop the charge; high peaks exceed the battery’s limit.',
  ),
  judge({ lane, name }, system) {
    const { q } = system
    if (!isStraight(lane) || lane.alternator.regulator !== 'computer') return null
    const { bank, rules } = system
    const { alternator } = lane
    const drop = isolatorDropV(lane)
    const peakV = alternator.highestV - drop
    const share = shareInWindow(alternator, drop, bank)
    const enough = rules.windowTimeShare / 100
    const peaks = peakV > bank.highV
    const dips = share < enough
    const tallied = alternator.driveTally !== null && alternator.driveTally.length > 0
    return {
      verdict: peaks || dips ? 'does-not-suit' : 'suits',
      compared: peaks
        ? [number('peaks at', peakV, 'V'), number('charge at most', bank.highV, 'V')]
        : [number('of the drive inside', share * 100, '%'), number('wanted', rules.windowTimeShare, '%')],
      limit: peaks
        ? bank.each.$origin(bank.highField)
        : { kind: 'rule', text: 'shop rule: drive time inside the window that is enough' },
      formula: () =>
        joinText(
          `${q(alternator.lowestV - drop, 'V')} to ${q(peakV, 'V')} on a drive; `,
          `inside ${q(bank.lowV, 'V')} to ${q(bank.highV, 'V')} ${formatShare(share)} of the time (`,
          tallied ? 'from the tally' : 'no tally: spread evenly',
          ')',
        ),
      summary: () =>
        peaks || dips
          ? joinText(
              `${name} swings from ${q(alternator.lowestV, 'V')} to ${q(alternator.highestV, 'V')}: `,
              `only ${formatShare(share)} of the drive is inside the window`,
              peaks ? ' and its peaks are above it' : '',
              '.',
            )
          : `${name} is inside the window ${formatShare(share)} of the drive.`,
      remedies: () => (peaks || dips ? [addDcdc(lane, system)] : []),
    }
  },
})

export const checks = [voltage, acceptance, spare, loadDump, computerControlled] as const
