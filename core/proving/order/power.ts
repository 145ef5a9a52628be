import type { DcdcUnit, SourceUnit } from '#core/network/network'
import { settingsCards, type SettingsCard } from '#core/solve/settings'
import { monitorSettings } from '#core/system/monitor'
import { inside, type Write } from '#core/units/format'
import { isKeeper, unitsOf } from '../rig'
import type { Step } from './step'
import { hasChassisNegative, leadThatStays, startersOf, type Work } from './work'

/** How far two batteries lie apart when one is full and one is as it came from its maker, V of 12 (engineering default). */
const asDeliveredV = 0.25

/** Each battery charged by itself, and how near they must be before they are joined. */
export function chargeSteps(work: Work): Step[] {
  const { after, network } = work
  const { bank, q, rules } = after
  const packs = unitsOf(network, 'battery').filter(({ chemistry }) => chemistry === 'lithium')
  const steps: Step[] = [
    {
      id: 'charge-alone',
      phase: 'charge',
      words: `Charge ${packs.length > 1 ? `each of the ${packs.length} batteries` : 'the new battery'} by itself to ${q(bank.middleV, 'V')} with a lithium charger, and let it rest.`,
      why: 'It comes half charged. Full is where its gauge begins, and where its cells show whether they are even.',
      caution: `Not below ${q(after.one.candidate.coldLimitC, '°C')}, and not left alone.`,
    },
  ]
  const lead = leadThatStays(work)
  const joined = lead?.serves === 'house' ? lead : null
  if (packs.length > 1 || joined) {
    const scale = bank.scale
    const within = rules.joinWithinV * scale
    const loop = packs.length > 1 ? 2 * packs[0]!.ohm : packs[0]!.ohm + joined!.ohm
    steps.push({
      id: 'charge-compare',
      phase: 'charge',
      words: `Read each one’s rested volts: join them only when they lie within ${q(within, 'V')} of each other.`,
      why: `Joined ${q(asDeliveredV * scale, 'V')} apart they would send some ${q((asDeliveredV * scale) / loop, 'A')} through each other.`,
    })
  }
  return steps
}

/** Batteries joined, then power, one fuse after another, from the bank outwards. */
export function joinSteps(work: Work): Step[] {
  const { network } = work
  const steps: Step[] = []
  const step = (
    id: string,
    phase: 'join' | 'power',
    words: string,
    why: string,
    numbers?: string[],
  ): unknown => steps.push({ id, phase, words, why, ...(numbers && numbers.length > 0 ? { numbers } : {}) })
  const packs = unitsOf(network, 'battery').filter(({ serves }) => serves === 'house')
  const numberOf = (id: string): string[] => {
    const number = network.posts.find((post) => post.id === id)?.fitting?.number
    return number ? [number] : []
  }
  step(
    'join-leads',
    'join',
    `${packs.length > 1 ? 'Join the batteries and put' : 'Put'} the leads on the battery, main switch off: positive first, negative last.`,
    'The last lead closes the circuit: it should be the one that may touch metal.',
  )
  if (packs.length > 1)
    step(
      'join-fuses',
      'join',
      'Put the fuse of each battery in, one after the other, and see that none of them sparks for long.',
      'What equalises between them flows now: if it does not fall within minutes, take the fuse out and compare them again.',
      packs.flatMap(({ id }) => numberOf(`${id}-fuse`)),
    )
  step(
    'power-polarity',
    'power',
    'With all branch fuses out, meter on each pair of leads: nothing joined to the wrong pole, no short from plus to minus.',
    'A lead on the wrong post costs nothing as long as its fuse is out.',
  )
  step(
    'power-main',
    'power',
    network.posts.some(({ id }) => id === 'main-fuse')
      ? 'Main fuse in, main switch on: the bar has the battery’s volts, and nothing flows.'
      : 'Battery’s fuses in: its volts are there, and nothing flows.',
    'A fuse is the last thing to close a circuit, and the bank comes before its branches.',
    [...numberOf('main-fuse'), ...numberOf('main-switch')],
  )
  step(
    'power-branches',
    'power',
    'Branch fuses in, one at a time, each unit looked at before the next.',
    'Whatever is wrong shows on one branch, and not on all of them.',
  )
  if (startersOf(work).length > 0)
    step(
      'power-starting',
      'power',
      hasChassisNegative(work)
        ? 'Starting battery: positive on, then its negative last of all.'
        : 'Starting battery: positive on, then its negative.',
      'Its negative goes on last, as it came off first.',
    )
  const watched = startersOf(work).filter(({ monitored }) => monitored === 'yes')
  if (watched.length > 0)
    step(
      'power-computer',
      'power',
      'Tell the vehicle’s computer of the battery, as its maker says, and clear what it stored.',
      'Until it is told it charges as it did for the old one.',
    )
  if (work.after.many.solar.length > 0)
    step(
      'power-panels',
      'power',
      'Panels on their controller, only now that it has its battery; then take the covers off.',
      'A controller finds out by its battery which voltage it works at.',
    )
  const mains = unitsOf(network, 'source').some(({ from }) => from === 'mains')
  if (mains || work.after.many.inverters.length > 0)
    step(
      'power-mains',
      'power',
      work.after.many.inverters.length > 0
        ? 'Plug the mains in, and switch the inverter on last.'
        : 'Plug the mains in last.',
      'Each source is seen by itself before they all push at once.',
    )
  return steps
}

/** Absorption and current of a unit, as its settings card says. */
function chargeSettings(unit: SourceUnit | DcdcUnit, cards: readonly SettingsCard[], q: Write): string {
  const card = cards.find(({ of }) => of !== null && of === unit.of)
  const shown = (label: string): string | null => {
    const setting = card?.settings.find((one) => one.label === label)
    return setting && typeof setting.value === 'number' && setting.unit !== ''
      ? q(setting.value, setting.unit)
      : null
  }
  const current = shown('Current')
  return [
    `absorption ${shown('Absorption') ?? q(unit.setV, 'V')}`,
    ...(current ? [`at most ${current}`] : []),
  ].join(', ')
}

/** What is set before anything is read: each charger, the monitor, the inverter. */
export function settingSteps({ after, network }: Work): Step[] {
  const { bank, q, one, many } = after
  const cards = settingsCards(after)
  const steps: Step[] = []
  const step = (id: string, words: string, why: string): unknown =>
    steps.push({ id: `set-${id}`, phase: 'settings', words, why })
  for (const unit of network.units)
    if (unit.kind === 'dcdc' && isKeeper(unit))
      step(
        unit.id,
        `Set ${inside(unit.name)}: lead, ${q(unit.setV, 'V')}, at most ${q(unit.mostA, 'A')}; it stops below ${q(unit.lowestInputV, 'V')} of the lithium.`,
        'It keeps lead full, and must not empty the lithium for it.',
      )
    else if ((unit.kind === 'source' && unit.from !== 'other') || unit.kind === 'dcdc')
      step(
        unit.id,
        `Set ${inside(unit.name)}: lithium, ${chargeSettings(unit, cards, q)}; equalising and temperature compensation off.`,
        'A profile for lead holds too much for too long, and goes higher in the cold, just when it must not.',
      )
  for (const alternator of many.alternators)
    if (alternator.regulator === 'external')
      step(
        alternator.$path.split('/')[1]!,
        `Set the regulator of ${inside(alternator.$name)}: its voltage, its current, and its temperature limit with the probe on the case.`,
        'Lithium takes all it gives for hours: the case tells when that is too much.',
      )
  const monitor = monitorSettings(after)
  if (one.use.$entered('monitor') === 'shunt')
    step(
      'monitor',
      `Set the monitor: ${q(monitor.capacityAh, 'Ah')}, full at ${q(monitor.chargedV, 'V')} and ${monitor.tailPercent} % tail current; zero it with the main lead open.`,
      'It counts: what it is told wrong today it shows wrong for years.',
    )
  for (const inverter of many.inverters)
    step(
      inverter.$path.split('/')[1]!,
      `Set the cut-off of ${inside(inverter.$name)} to ${q(inverter.cutOffV, 'V')}, above the battery’s own cut of ${q(bank.bmsUnderV, 'V')}.`,
      'The inverter should stop before the battery parts from everything.',
    )
  if (one.use.warns === 'yes' || one.candidate.warning !== 'none')
    step(
      'warning',
      'Set the warning before the cut-off, where it is heard.',
      'A battery that goes off without a word takes the lights and the radio with it.',
    )
  return steps
}
