import { allowsParallel } from '#core/system/more-batteries'
import { loopOhmThere } from '#core/system/lanes'
import { joinText, nameInSentence } from '#core/units/format'
import { check, number } from '#core/assessment/check'
import { thickerCable } from '#core/remedies/arrangements'
import { fewestParallel, highestDischargeA, inverterA, surgeA } from '#core/system/energy'
import { inverterW, tooMuch } from './current'

const sag = check({
  id: 'battery.sag',
  title: 'Voltage under load',
  about: 'battery',
  why: joinText(
    'An inverter keeps its power constant. As the voltage sags it draws more, ',
    'and below the cut-off the BMS disconnects everything.',
  ),
  judge(_subject, system) {
    const { q } = system
    const { bank } = system
    if (bank.each.purpose === 'starter') return null
    const steady = highestDischargeA(system)
    const surge = surgeA(system)
    const worst = surge.seconds > 0 && (surge.volts < steady.volts || !surge.given) ? surge : steady
    if (worst.amps <= 0) return null
    const cutsV = bank.bmsUnderV
    const bad = !worst.given || worst.volts < cutsV
    const { dcA } = worst
    const count = fewestParallel(worst, system, ({ volts }) => volts >= cutsV)
    const startSags = surge.seconds > 0 && (!surge.given || surge.volts < cutsV)
    const restsV = bank.ocv(system.rules.lowSoc / 100)
    const atCut = (restsV - cutsV) / bank.ohm - steady.dcA
    const mostW = restsV ** 2 / (4 * bank.ohm)
    // The load leaves no voltage to calculate the current from, so the resting voltage is used.
    const askedW = dcA * restsV + worst.takenW
    const allowed = allowsParallel(count, system)
    return {
      verdict: !bad ? 'suits' : allowed ? 'suits-once-changed' : 'does-not-suit',
      compared: worst.given
        ? [number('sags to', worst.volts, 'V'), number('BMS cuts at', cutsV, 'V')]
        : [number('asked', askedW, 'W'), number('it can give', mostW, 'W')],
      limit: bank.each.$origin(worst.given ? 'bmsUnderV' : 'resistanceMohm'),
      formula: () =>
        joinText(
          `(${q(restsV - dcA * bank.ohm, 'V')} + √(… ² − 4 × `,
          `${q(worst.takenW, 'W')} × ${q(bank.ohm * 1000, 'mΩ')})) ÷ 2 = `,
          worst.given ? q(worst.volts, 'V') : 'no solution',
          `, ${q(worst.amps, 'A')}, at ${system.rules.lowSoc} %`,
        ),
      summary: () =>
        worst.given
          ? joinText(
              `Under its largest load the battery sags to ${q(worst.volts, 'V')} at ${q(worst.amps, 'A')}`,
              bad ? `, and the BMS cuts at ${q(cutsV, 'V')}` : '',
              '.',
            )
          : `The loads ask for ${q(askedW, 'W')}. The battery can give ${q(mostW, 'W')} at most.`,
      // Held back, an inverter asks for less while it runs, and for as much while its load starts.
      remedies: bad ? tooMuch(count, startSags ? null : inverterW(steady, atCut, cutsV), system) : [],
    }
  },
})

const cutOff = check({
  id: 'inverter.cut-off',
  title: 'Cut-off of the inverter',
  about: 'inverter',
  why: 'An inverter below its cut-off voltage stops working with half the battery left.',
  judge({ inverter, name }, system) {
    const { q } = system
    const { bank, rules, many } = system
    const demand = highestDischargeA(system)
    const { volts } = demand
    const amps = inverterA(inverter, system)
    const cables = many.conductors.filter(({ $of }) => $of === inverter.$path)
    const ohm = cables.reduce((sum, cable) => sum + loopOhmThere(cable, system.rules), 0)
    const arrivesV = volts - amps * ohm
    const { cutOffV } = inverter
    const low = arrivesV < cutOffV
    const share = amps / demand.amps
    const count = fewestParallel(demand, system, (under) => under.volts - share * under.amps * ohm >= cutOffV)
    const wire = low ? thickerCable(cables, (volts - cutOffV) / amps - ohm, system) : null
    const leftA = (bank.ocv(rules.lowSoc / 100) - demand.dcA * bank.ohm - cutOffV) / (bank.ohm + ohm)
    const leftW = many.inverters.length === 1 ? inverterW(demand, leftA, cutOffV + leftA * ohm) : null
    const allowed = allowsParallel(count, system)
    return {
      verdict: !low ? 'suits' : wire || allowed ? 'suits-once-changed' : 'does-not-suit',
      compared: [number('arrives', arrivesV, 'V'), number('it stops at', cutOffV, 'V')],
      limit: inverter.$origin('cutOffV'),
      formula: () =>
        joinText(
          `${q(volts, 'V')} at the battery under load`,
          cables.length === 0
            ? ', cable not entered'
            : ` − ${q(amps, 'A')} × ${q(ohm * 1000, 'mΩ')} of cable = ${q(arrivesV, 'V')}`,
          `, at ${rules.lowSoc} %`,
        ),
      summary: () =>
        low
          ? joinText(
              `At full power ${q(arrivesV, 'V')} arrive at ${nameInSentence(name)}, `,
              `which stops at ${q(cutOffV, 'V')}.`,
            )
          : joinText(
              `At full power ${q(arrivesV, 'V')} arrive at ${nameInSentence(name)}, `,
              `over its cut-off of ${q(cutOffV, 'V')}.`,
            ),
      remedies: low ? [...(wire ? [wire] : []), ...tooMuch(count, leftW, system)] : [],
    }
  },
})

export const checks = [sag, cutOff] as const
