import { check, number, word } from '#core/assessment/check'
import type { BatteryUnit } from '#core/network/network'
import { wiringIn, type Wiring } from '#core/network/wiring'
import type { System } from '#core/system/system'

/** Whether the wiring is judged at all: a job whose runs have parts. */
const isWired = ({ many }: System): boolean => many.runs.length > 0

/** The batteries of a parallel bank. */
const batteriesOf = ({ network }: Wiring): readonly BatteryUnit[] =>
  network.units.filter((unit): unit is BatteryUnit => unit.kind === 'battery' && unit.of === 'candidate')

export const equalLeads = check({
  id: 'wiring.equal-leads',
  title: 'Share of each battery in the bank',
  about: 'battery',
  takesTime: true,
  why: 'The battery with the shortest way to the load works hardest, ages first, and its protection opens first.',
  judge(_subject, system) {
    if (!isWired(system)) return null
    const wiring = wiringIn(system)
    const batteries = batteriesOf(wiring)
    if (batteries.length < 2) return null
    const at =
      wiring.solved.cases.find(({ id }) => id === 'loads') ??
      wiring.solved.cases.find(({ kind }) => kind === 'charge')
    if (!at) return null
    const { q, rules } = system
    const amps = batteries.map(({ id }) => Math.abs(wiring.solved.in(at).amps.get(`${id}-lead`)!))
    const mean = amps.reduce((sum, one) => sum + one, 0) / amps.length
    if (mean < 0.1) return null
    const more = (Math.max(...amps) / mean - 1) * 100
    const unequal = more > rules.unequalShare
    return {
      verdict: unequal ? 'suits-once-changed' : 'suits',
      compared: [
        number('the hardest worked carries more by', more, '%'),
        number('at most', rules.unequalShare, '%'),
      ],
      limit: { kind: 'rule', text: 'shop rule: how unequal the batteries of a bank may be' },
      formula: () => `${at.name}: ${amps.map((one) => q(one, 'A')).join(', ')}`,
      summary: () =>
        unequal
          ? `One battery of the bank carries ${Math.round(more)} % more than its share: ${amps.map((one) => q(one, 'A')).join(', ')}.`
          : `The batteries of the bank share the current: ${amps.map((one) => q(one, 'A')).join(', ')}.`,
      remedies: unequal ? [{ id: 'bank.equal-leads', on: 'candidate' }] : [],
    }
  },
})

export const shuntBypassed = check({
  id: 'wiring.shunt-bypassed',
  title: 'What is joined before the shunt',
  about: 'battery',
  takesTime: true,
  why: 'Current that does not pass the shunt is not counted: the monitor shows charge that is not there.',
  judge(_subject, system) {
    if (!isWired(system)) return null
    const wiring = wiringIn(system)
    if (!wiring.post('shunt')) return null
    const before = wiring
      .runsAt('bank-minus')
      .filter(({ to, from, of }) => to !== 'shunt' && from !== 'shunt' && of !== 'candidate')
    const bypassed = before.length > 0
    const names = before.map(({ number: name }) => name).join(', ')
    return {
      verdict: bypassed ? 'suits-once-changed' : 'suits',
      compared: [number('joined before the shunt', before.length, ''), number('allowed', 0, '')],
      limit: { kind: 'physics', text: 'the shunt counts what passes it' },
      formula: () =>
        bypassed ? `on the battery’s own post: ${names}` : 'nothing but the battery on its side',
      summary: () =>
        bypassed
          ? `${names} land on the battery’s own post: the monitor does not count them.`
          : 'Everything but the battery is joined behind the shunt.',
      remedies: before.flatMap(({ returnOf }) =>
        returnOf ? [{ id: 'run.on-bar', on: `runs/${returnOf}` } as const] : [],
      ),
    }
  },
})

export const bond = check({
  id: 'wiring.bond',
  title: 'Bond of the negative',
  about: 'battery',
  takesTime: true,
  why: 'One bond, behind the shunt and as thick as a fault needs: with none, a fault to metal finds no way back; with two, current goes where nobody wants it.',
  judge(_subject, system) {
    if (!isWired(system)) return null
    const wiring = wiringIn(system)
    if (!wiring.post('chassis') || system.craft === 'trailer') return null
    const { one } = system
    const bonds = wiring.network.runs.filter(({ role }) => role === 'bond')
    const wanted = one.use.negatives === 'common' ? 1 : 0
    const behind = bonds.every(({ from }) => from !== 'bank-minus' || !wiring.post('shunt'))
    const sound = bonds.length === wanted && behind
    return {
      verdict: sound ? 'suits' : 'suits-once-changed',
      compared: [number('bonds', bonds.length, ''), number('wanted', wanted, '')],
      limit: one.use.$origin('negatives'),
      formula: () =>
        wanted === 1 ? 'negatives joined: one bond, behind the shunt' : 'negatives kept apart: no bond',
      summary: () =>
        wanted === 1
          ? 'One bond joins the negative bar to the engine or the body.'
          : 'The negatives are kept apart; no bond joins them.',
      cautions: () => ['Where shore power or a hull of metal is, the bond belongs to licensed hands.'],
    }
  },
})

export const chargeStop = check({
  id: 'wiring.charge-stop',
  title: 'Line of the charge stop to each source',
  about: 'battery',
  takesTime: true,
  why: 'A battery whose protection stands outside it stops a source by a line; one without goes on charging.',
  judge(_subject, system) {
    if (!isWired(system) || system.one.candidate.warning !== 'stop') return null
    const { network } = wiringIn(system)
    const sources = system.lanes.length
    const lines = network.signals.length
    return {
      verdict: lines >= sources ? 'suits' : 'suits-once-changed',
      compared: [number('sources', sources, ''), number('with a line', lines, '')],
      limit: system.one.candidate.$origin('warning'),
      formula: () => network.signals.map(({ number: line, name }) => `${line} ${name}`).join(', '),
      summary: () => `The battery’s stop reaches each of ${sources} sources by a line of its own.`,
    }
  },
})

export const isolation = check({
  id: 'wiring.isolation',
  title: 'One switch for the lay-up',
  about: 'battery',
  takesTime: true,
  why: 'What goes on drawing through the winter empties the battery below its cut-out.',
  judge(_subject, system) {
    if (!isWired(system) || system.one.use.layupWeeks <= 0) return null
    const wiring = wiringIn(system)
    const switched = wiring.post('main-switch') !== null
    return {
      verdict: 'suits',
      compared: [
        word('for the lay-up', switched ? 'one switch' : 'a lead comes off'),
        word('wanted', 'nothing draws'),
      ],
      limit: system.one.use.$origin('layupWeeks'),
      formula: () =>
        switched
          ? 'everything but the battery is behind the main switch'
          : 'no main switch: the positive lead comes off',
      summary: () =>
        switched
          ? 'The main switch leaves nothing drawing in the lay-up.'
          : 'For the lay-up the positive lead comes off the battery: there is no switch.',
    }
  },
})

export const mains = check({
  id: 'wiring.mains',
  title: 'Mains side',
  about: 'battery',
  takesTime: true,
  why: 'Mains kill.',
  judge(_subject, system) {
    const { many } = system
    const units = many.chargers.length + many.inverters.length
    if (!isWired(system) || units === 0) return null
    return {
      verdict: 'suits',
      compared: [number('units with a mains side', units, ''), word('left to', 'licensed hands')],
      limit: { kind: 'rule', text: 'mains are not part of this plan' },
      formula: () => 'inlet, breakers, residual-current protection, neutral and earth are not drawn here',
      summary: () => 'The mains side of chargers and inverters is left to licensed hands.',
    }
  },
})
