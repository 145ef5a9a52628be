import { joinText, nameInSentence, type Write } from '#core/units/format'
import { check, number, word } from '#core/assessment/check'
import { smallerDcdc, unjoined } from '#core/remedies/arrangements'
import { allDayBudget, availableA } from '#core/system/alternators'
import { dcdcInput } from '#core/system/currents'
import { currentAgainstBank } from '../charger/charger-current'

const idleCaution = (name: string, idleA: number, q: Write): string =>
  joinText(
    `At idle ${nameInSentence(name)} delivers only ${q(idleA, 'A')}; `,
    'the starting battery supplies the rest.',
  )

const output = check({
  id: 'dcdc.output',
  title: 'DC-DC output',
  about: 'alternator',
  why: 'The unit draws more at its input than it delivers. Battery and alternator must both carry that.',
  judge({ lane, name }, system) {
    const { q } = system
    const { link, alternator } = lane
    if (link.kind !== 'dcdc') return null
    const battery = currentAgainstBank(link, `The DC-DC on ${nameInSentence(name)}`, system)
    if (battery.verdict !== 'suits') return battery
    const { rules } = system
    const { amps: budgetA, origin, formula: budget } = allDayBudget(alternator, rules, q)
    const input = dcdcInput(lane, system)
    const { runningA } = input
    const runsV = Math.max(input.volts, link.lowestInputV)
    const over = runningA > budgetA
    const less = over ? smallerDcdc(lane, system) : null
    return {
      verdict: !over ? 'suits' : less ? 'suits-once-changed' : 'does-not-suit',
      compared: [number('unit draws', runningA, 'A'), number('alternator over a drive', budgetA, 'A')],
      limit: origin,
      formula: () =>
        joinText(
          `${q(link.absorptionV, 'V')} × ${q(link.ratedA, 'A')} ÷ `,
          `(${rules.dcdcEfficiency} % × ${q(runsV, 'V')}) = ${q(runningA, 'A')}; `,
          `${budget} − ${q(alternator.vehicleDrawA, 'A')} = ${q(budgetA, 'A')}`,
        ),
      summary: () =>
        joinText(
          `The DC-DC draws ${q(runningA, 'A')} from ${nameInSentence(name)}, `,
          `which can deliver ${q(budgetA, 'A')} over a drive.`,
        ),
      remedies: over ? [less ?? unjoined(lane)] : [],
      cautions: () => {
        const idleA = availableA(alternator, 'idle', rules)
        return !over && runningA > idleA ? [idleCaution(name, idleA, q)] : []
      },
    }
  },
})

const signal = check({
  id: 'dcdc.signal',
  title: 'Running signal',
  about: 'alternator',
  why: joinText(
    'Voltage alone is unreliable. A computer lowers it while the engine runs, ',
    'and a charger or solar raises it while the engine is off.',
  ),
  judge({ lane, name }, { many, rules }) {
    const { link, alternator } = lane
    if (link.kind !== 'dcdc') return null
    const computer = alternator.regulator === 'computer'
    const alsoFed =
      lane.starting.fedByCharger === 'yes' || many.chargers.some((charger) => charger.feeds !== 'house')
    const needsWire =
      computer || (rules.signalSchool === 'fitting' && alsoFed) || rules.signalSchool === 'wire'
    const bad = needsWire && link.signal === 'voltage'
    const because = computer
      ? `${name} is computer-controlled`
      : rules.signalSchool === 'wire'
        ? 'the shop always runs a wire'
        : 'a charger or solar also feeds the starting battery'
    return {
      verdict: bad ? 'suits-once-changed' : 'suits',
      compared: [
        word('starts on', link.signal === 'wire' ? 'a wire' : 'voltage'),
        word('needs', needsWire ? 'a wire' : 'either'),
      ],
      limit: { kind: 'rule', text: 'shop rule: running signal for a DC-DC unit' },
      formula: () =>
        needsWire ? `${because} → wire` : 'steady alternator, nothing else on the starting battery → either',
      summary: () =>
        bad
          ? `The DC-DC starts on voltage, and ${because}.`
          : `The DC-DC starts on ${link.signal === 'wire' ? 'a wire' : 'the voltage it detects'}, which suits here.`,
      remedies: bad ? [{ id: 'dcdc.signal-wire', on: link.$path }] : [],
    }
  },
})

const voltages = check({
  id: 'dcdc.voltages',
  title: 'Made for these voltages',
  about: 'alternator',
  why: 'Input and output must match the two systems. A common negative connects systems that were separate.',
  judge({ lane }, { bank, one }) {
    const { link, alternator } = lane
    if (link.kind !== 'dcdc') return null
    const made = `${link.inputV} → ${link.outputV} V`
    const needed = `${alternator.nominalV} → ${bank.nominalV} V`
    const wrong = made !== needed
    const joins = one.use.negatives === 'separate' && link.isolation === 'common'
    return {
      verdict: wrong ? 'does-not-suit' : joins ? 'suits-once-changed' : 'suits',
      compared:
        wrong || !joins
          ? [word('made for', made), word('needed', needed)]
          : [word('negatives', 'joined inside'), word('needed', 'isolated')],
      limit: wrong || !joins ? alternator.$origin('nominalV') : one.use.$origin('negatives'),
      formula: () =>
        joinText(
          `alternator ${alternator.nominalV} V, bank ${bank.nominalV} V; unit ${made}, `,
          'negatives ',
          link.isolation === 'common' ? 'joined inside' : 'isolated',
        ),
      summary: () =>
        wrong
          ? `The DC-DC is made for ${made}; this job needs ${needed}.`
          : joins
            ? 'The DC-DC joins the two negatives, which this vehicle keeps separate.'
            : `The DC-DC is made for ${made}, as this job needs.`,
      remedies: wrong
        ? [
            {
              id: 'dcdc.right-voltages',
              on: link.$path,
              values: { inputV: alternator.nominalV, outputV: String(bank.nominalV) },
            },
          ]
        : joins
          ? [{ id: 'dcdc.isolated', on: link.$path }]
          : [],
    }
  },
})

export const checks = [output, signal, voltages] as const
