import { check, mid, number, word } from '#core/assessment/check'
import { addDcdc } from '#core/remedies/arrangements'
import type { Lane } from '#core/system/lanes'
import type { BatteryUnit } from '#core/network/network'
import { loadStop } from '#core/network/propose/bars'
import { hasRuns, wiringIn, type Wiring } from '#core/network/wiring'

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
    if (!hasRuns(system)) return null
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
  title: 'Returns before the shunt',
  about: 'battery',
  takesTime: true,
  why: 'Current that does not pass the shunt is not counted: the monitor shows charge that is not there.',
  judge(_subject, system) {
    if (!hasRuns(system)) return null
    const wiring = wiringIn(system)
    if (wiring.ways.post('shunt')?.kind !== 'shunt') return null
    const before = wiring.ways
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
  title: 'Bond of the negatives',
  about: 'battery',
  takesTime: true,
  why: 'One bond, behind the shunt: with none where they are to be joined, a fault to metal finds no way back; with one where they are kept apart, current goes where nobody wants it.',
  judge(_subject, system) {
    if (!hasRuns(system)) return null
    const { network } = wiringIn(system)
    if (network.posts.every(({ id }) => id !== 'chassis') || system.craft === 'trailer') return null
    const { one, many } = system
    const apart = one.use.negatives === 'separate'
    const joining = many.links.filter(({ kind, isolation }) => kind === 'dcdc' && isolation === 'common')
    const joined = apart && joining.length > 0
    const bonds = network.runs.filter(({ role }) => role === 'bond').length + (apart ? joining.length : 0)
    return {
      verdict: joined ? 'suits-once-changed' : 'suits',
      compared: [number('join the negatives', bonds, ''), number('wanted', apart ? 0 : 1, '')],
      limit: one.use.$origin('negatives'),
      formula: () =>
        apart ? `kept apart; joined inside a unit: ${joining.length}` : 'joined: one bond, behind the shunt',
      summary: () =>
        joined
          ? `The negatives are to be kept apart, and ${joining.map(({ $name }) => $name).join(', ')} joins them inside.`
          : apart
            ? 'The negatives are kept apart; nothing joins them.'
            : 'One bond joins the negative bar to the engine or the body.',
      remedies: joined ? joining.map(({ $path }) => ({ id: 'dcdc.isolated', on: $path }) as const) : [],
      cautions: () => ['Where shore power or a hull of metal is, the bond belongs to licensed hands.'],
    }
  },
})

export const jumpSwitch = check({
  id: 'wiring.jump-switch',
  title: 'Jump switch in the wiring',
  about: 'starting',
  takesTime: true,
  why: 'A jump switch joins two banks by a cable that no fuse of this plan protects, and lets a starter draw on a battery whose protection then opens.',
  judge({ starting, name }, system) {
    if (!hasRuns(system) || starting.present !== 'yes') return null
    const stays = starting.jumpSwitch === 'yes'
    return {
      verdict: stays ? 'suits-once-changed' : 'suits',
      compared: [word('a jump switch', stays ? 'stays' : 'none'), word('wanted', 'none')],
      limit: { kind: 'physics', text: 'two batteries feed a fault in what joins them' },
      formula: () => (stays ? 'joined by hand, without a fuse of its own' : 'nothing joins them by hand'),
      summary: () =>
        stays
          ? `A jump switch joins ${mid(name)} to the house bank by a way that is not fused.`
          : `Nothing joins ${mid(name)} to the house bank by hand.`,
      remedies: stays ? [{ id: 'start.no-jump', on: starting.$path }] : [],
    }
  },
})

/** Whether a battery’s signal can stop a source: it has an input for it, or something in its way can be opened. */
const canBeStopped = (lane: Lane): boolean =>
  lane.kind !== 'alternator' ||
  ['dcdc', 'vsr', 'solenoid', 'duty'].includes(lane.link.kind) ||
  lane.alternator.regulator === 'external' ||
  lane.alternator.chargeStopWire === 'yes'

export const chargeStop = check({
  id: 'wiring.charge-stop',
  title: 'Line of the stop to each source and to the loads',
  about: 'battery',
  takesTime: true,
  why: 'A battery whose protection stands outside it stops a source by a line, and drops the loads by a contactor: what no line can stop goes on charging or drawing.',
  judge(_subject, system) {
    if (!hasRuns(system) || system.one.candidate.warning !== 'stop') return null
    const { network, ways } = wiringIn(system)
    const without = system.lanes.filter((lane) => !canBeStopped(lane))
    const stopped = system.lanes.length - without.length
    const loadsGoOn = ways.post(loadStop)?.kind === 'joint'
    return {
      verdict: without.length > 0 || loadsGoOn ? 'suits-once-changed' : 'suits',
      compared: loadsGoOn
        ? [word('contactor of the loads', 'left out'), word('wanted', 'one that the signal opens')]
        : [number('sources', system.lanes.length, ''), number('can be stopped', stopped, '')],
      limit: system.one.candidate.$origin('warning'),
      formula: () =>
        network.lines
          .filter(({ kind }) => kind === 'stop')
          .map(({ number: line, name }) => `${line} ${name}`)
          .join(', '),
      summary: () =>
        without.length > 0
          ? `No line of the battery’s signal can stop ${without.map(({ name }) => mid(name)).join(', ')}: its regulator has no input for it.`
          : loadsGoOn
            ? 'The contactor that drops the loads at the battery’s signal is left out: they draw on until its electronics open.'
            : `The battery’s stop reaches each of ${system.lanes.length} sources by a line of its own.`,
      remedies: [
        ...without.flatMap((lane) => (lane.kind === 'alternator' ? [addDcdc(lane, system)] : [])),
        ...(loadsGoOn ? [{ id: 'fitting.add', on: `fittings/${loadStop}` } as const] : []),
      ],
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
    const { one, many, rules, q } = system
    if (!hasRuns(system) || one.use.layupWeeks <= rules.standWeeks) return null
    const switched = wiringIn(system).ways.post('main-switch')?.kind === 'switch'
    const drawsA = many.startingBatteries.reduce(
      (sum, { present, standbyA }) => sum + (present === 'no' ? standbyA : 0),
      0,
    )
    const drains = !switched && drawsA > 0 && rules.layupSchool !== 'rest'
    return {
      verdict: drains ? 'suits-once-changed' : 'suits',
      compared: [number('goes on drawing', switched ? 0 : drawsA, 'A'), number('wanted', 0, 'A')],
      limit: one.use.$origin('layupWeeks'),
      formula: () =>
        switched
          ? 'everything but the battery is behind the main switch'
          : `no main switch; ${q(drawsA, 'A')} for ${q(one.use.layupWeeks, 'weeks')}`,
      summary: () =>
        switched
          ? 'The main switch leaves nothing drawing in the lay-up.'
          : drains
            ? `There is no switch, and ${q(drawsA, 'A')} are drawn through a lay-up of ${q(one.use.layupWeeks, 'weeks')}.`
            : 'For the lay-up the positive lead comes off the battery.',
      remedies: drains ? [{ id: 'layup.disconnect', on: 'candidate' }] : [],
    }
  },
})
