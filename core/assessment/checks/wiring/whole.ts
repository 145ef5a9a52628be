import { entryOf } from '#core/collections/held'
import { check, number, word } from '#core/assessment/check'
import { nameInSentence, joinText } from '#core/units/format'
import { addDcdc } from '#core/remedies/arrangements'
import type { Lane } from '#core/system/lanes'
import type { System } from '#core/system/system'
import type { BatteryUnit, Run } from '#core/wiring/network'
import { loadStop } from '#core/wiring/propose/bars'
import { hasRuns, wiringIn, type Wiring } from '#core/wiring/wiring'

/** The batteries of a parallel bank. */
const batteriesOf = ({ network }: Wiring): readonly BatteryUnit[] =>
  network.units.filter((unit): unit is BatteryUnit => unit.kind === 'battery' && unit.of === 'candidate')

const equalLeads = check({
  id: 'wiring.equal-leads',
  title: 'Share of each battery in the bank',
  about: 'battery',
  takesTime: true,
  why: joinText(
    'The battery with the shortest path to the load carries most. ',
    'It ages first and its BMS cuts out first.',
  ),
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
    const amps = batteries.map(({ id }) => Math.abs(entryOf(wiring.solved.in(at).amps, `${id}-lead`)))
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
      limit: { kind: 'rule', text: 'shop rule: unequal current accepted in a bank' },
      formula: () => `${at.name}: ${amps.map((one) => q(one, 'A')).join(', ')}`,
      summary: () =>
        unequal
          ? joinText(
              `One battery of the bank carries ${Math.round(more)} % more than its share: `,
              `${amps.map((one) => q(one, 'A')).join(', ')}.`,
            )
          : `The batteries of the bank share the current: ${amps.map((one) => q(one, 'A')).join(', ')}.`,
      remedies: unequal ? [{ id: 'bank.equal-leads', on: 'candidate' }] : [],
    }
  },
})

const shuntBypassed = check({
  id: 'wiring.shunt-bypassed',
  title: 'Returns before the shunt',
  about: 'battery',
  takesTime: true,
  why: joinText(
    'Current that does not pass the shunt is not counted. ',
    'The monitor then shows charge that is not there.',
  ),
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
      limit: { kind: 'physics', text: 'a shunt counts only the current through it' },
      formula: () =>
        bypassed ? `directly on the battery post: ${names}` : 'nothing but the battery on its side',
      summary: () =>
        bypassed
          ? `Directly on the battery post: ${names}. The monitor does not count their current.`
          : 'Everything except the battery connects behind the shunt.',
      remedies: before.flatMap(({ returnOf }) =>
        returnOf ? [{ id: 'run.on-bar', on: `runs/${returnOf}` } as const] : [],
      ),
    }
  },
})

const bond = check({
  id: 'wiring.bond',
  title: 'Bond of the negatives',
  about: 'battery',
  takesTime: true,
  why: joinText(
    'Bond the negatives once, on the load side of the shunt. ',
    'Without a bond a fault to metal has no return path; a second one carries stray current.',
  ),
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
          ? joinText(
              'The negatives must stay separate, but they are joined inside ',
              `${joining.map(({ $name }) => nameInSentence($name)).join(', ')}.`,
            )
          : apart
            ? 'The negatives are separate; nothing joins them.'
            : 'One bond joins the negative bar to the engine or the body.',
      remedies: joined ? joining.map(({ $path }) => ({ id: 'dcdc.isolated', on: $path }) as const) : [],
      cautions: () => ['With shore power or a metal hull, a licensed person does the bond.'],
    }
  },
})

/** Parts whose current may come back by the metal of an engine: they stand on it. */
const kindsOnEngine = ['alternators', 'startingBatteries']

const metalReturn = check({
  id: 'wiring.metal-return',
  title: 'Return through hull or engine block',
  about: 'battery',
  takesTime: true,
  why: joinText(
    'Current in a hull, mast or engine block corrodes it, ',
    'and a loose joint there starts a fire. Metal is bonded once and carries no load.',
  ),
  judge(_subject, system) {
    if (!hasRuns(system) || system.craft !== 'vessel') return null
    const { network } = wiringIn(system)
    const isReturn = ({ returnOf, areaMm2 }: Run): boolean => returnOf !== null && areaMm2 === null
    const byMetal = network.runs.filter((run) => {
      const onEngine = kindsOnEngine.some((kind) => run.of?.startsWith(`${kind}/`))
      if (onEngine) return false
      const path = run.cable ?? `runs/${run.id}`
      const feeds = run.returnOf === null && run.role !== 'bond'
      return isReturn(run) || (feeds && hasMetalReturn(path, system))
    })
    const paths = [...new Set(byMetal.map((run) => run.cable ?? `runs/${run.returnOf ?? run.id}`))]
    const names = [...new Set(byMetal.map(({ number: name }) => name.replace('−', '')))].join(', ')
    const isMetal = byMetal.length > 0
    return {
      verdict: isMetal ? 'suits-once-changed' : 'suits',
      compared: [number('return through metal', paths.length, ''), number('allowed', 0, '')],
      limit: { kind: 'physics', text: 'on a boat, metal is bonded once and carries no load' },
      formula: () =>
        isMetal ? `hull, mast or engine block is the return of ${names}` : 'each run has its own return',
      summary: () =>
        isMetal
          ? `The current of ${names} returns through hull or engine block. Run a negative cable for each.`
          : 'No load current returns through hull or engine block.',
      remedies: paths.map((on) => ({ id: 'run.return-cable', on }) as const),
    }
  },
})

/** Whether someone set or surveyed that the current of a cable or a run comes back by metal. */
function hasMetalReturn(path: string, { many }: System): boolean {
  const part = [...many.conductors, ...many.runs].find(({ $path }) => $path === path)
  return part?.$entered('returnBy') === 'chassis'
}

const jumpSwitch = check({
  id: 'wiring.jump-switch',
  title: 'Jump switch in the wiring',
  about: 'starting',
  takesTime: true,
  why: joinText(
    'A jump switch joins two banks without a fuse. ',
    'A starter can then draw on the house battery until its BMS cuts out.',
  ),
  judge({ starting, name }, system) {
    if (!hasRuns(system) || starting.present !== 'yes') return null
    const stays = starting.jumpSwitch === 'yes'
    return {
      verdict: stays ? 'suits-once-changed' : 'suits',
      compared: [word('a jump switch', stays ? 'stays' : 'none'), word('wanted', 'none')],
      limit: { kind: 'physics', text: 'two batteries feed a fault in the link between them' },
      formula: () => (stays ? 'joined by hand, without a fuse of its own' : 'nothing joins them by hand'),
      summary: () =>
        stays
          ? `A jump switch joins ${nameInSentence(name)} to the house bank without a fuse.`
          : `Nothing joins ${nameInSentence(name)} to the house bank by hand.`,
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

const chargeStop = check({
  id: 'wiring.charge-stop',
  title: 'Line of the stop to each source and to the loads',
  about: 'battery',
  takesTime: true,
  why: joinText(
    'A battery with an external BMS stops sources by a signal and loads by a contactor. ',
    'Anything it cannot stop continues to charge or draw.',
  ),
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
          ? joinText(
              'No line of the battery’s signal can stop ',
              `${without.map(({ name }) => nameInSentence(name)).join(', ')}: `,
              'its regulator has no input for it.',
            )
          : loadsGoOn
            ? joinText(
                'The contactor that drops the loads at the battery’s signal is left out: ',
                'they draw on until its electronics open.',
              )
            : `The battery’s stop reaches each of ${system.lanes.length} sources by a line of its own.`,
      remedies: [
        ...without.flatMap((lane) => (lane.kind === 'alternator' ? [addDcdc(lane, system)] : [])),
        ...(loadsGoOn ? [{ id: 'fitting.add', on: `fittings/${loadStop}` } as const] : []),
      ],
    }
  },
})

export const checks = [equalLeads, shuntBypassed, bond, metalReturn, jumpSwitch, chargeStop] as const
