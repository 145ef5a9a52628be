import type { DcdcUnit, SourceUnit } from '#core/wiring/network'
import { settingsCards, type SettingsCard } from '#core/solve/settings'
import { monitorSettings } from '#core/system/monitor'
import { showStopSignal, warningOf } from '#core/system/warning'
import { partId } from '#core/job/document'
import { nameInSentence, type Write, joinText } from '#core/units/format'
import { isKeeper, unitsOf } from '../rig'
import { joinLead } from './charge'
import { Steps, type WorkStep } from './step'
import { hasChassisNegative, leadThatStays, numbersOf, plugsOf, startersOf, type Work } from './work'

/** A resistor that charges the capacitors of an inverter, by hand, at 12 V and above (engineering defaults). */
const prechargeWords = (nominalV: number): string =>
  nominalV > 12 ? 'a 100 Ω 25 W resistor for 30 s' : 'a 47 Ω 10 W resistor for 10 s'

const isShunted = ({ after }: Work): boolean => after.one.use.$entered('monitor') === 'shunt'
/** Sources, each with its fuse, which goes in after the settings. */
const chargingUnits = ({ network }: Work): (SourceUnit | DcdcUnit)[] => [
  ...unitsOf(network, 'source'),
  ...unitsOf(network, 'dcdc'),
]

/** First power: from the bank outwards to the loads, every source still off. */
export function powerSteps(work: Work): WorkStep[] {
  const steps = new Steps('power')
  closeMain(steps, work)
  closeSense(steps, work)
  joinLead(steps, work)
  closeBranches(steps, work)
  closeStarting(steps, work)
  return steps.all
}

function closeMain(steps: Steps, work: Work): void {
  const hasMain = numbersOf(work, 'main-fuse').length > 0
  const hasSwitch = numbersOf(work, 'main-switch').length > 0
  steps.add(
    'power-polarity',
    joinText(
      'With all branch fuses out, check each pair of leads with the meter: ',
      'right pole, no short from plus to minus.',
    ),
    'A lead on the wrong post does no harm while its fuse is out.',
  )
  steps.add(
    'power-main',
    hasMain
      ? joinText(
          `Put the main fuse in${hasSwitch ? ' and switch the main switch on' : ''}. `,
          'The bar now has the battery voltage, and no current flows.',
        )
      : 'Measure the voltage at the battery leads. No current flows yet.',
    hasMain
      ? 'The fuse closes the circuit, and the bank comes before its branches.'
      : 'All branch fuses are still out.',
    { numbers: numbersOf(work, 'main-fuse', 'main-switch') },
  )
}

/** The monitor, which is zeroed while no current flows. */
function closeSense(steps: Steps, work: Work): void {
  const senses = work.network.lines.filter(
    ({ kind, fuseA, state }) => kind === 'sense' && fuseA && state === 'new',
  )
  if (senses.length > 0)
    steps.add(
      'power-sense',
      'Put the fuses of the sense leads in.',
      'The monitor and the regulator read the battery from now on.',
      { numbers: senses.map(({ number }) => number) },
    )
  if (isShunted(work))
    steps.add(
      'power-zero',
      'Zero the current reading of the monitor now, before any branch fuse goes in.',
      'No current flows at this moment. Later there is always some.',
    )
}

function closeBranches(steps: Steps, work: Work): void {
  const { network } = work
  for (const inverter of unitsOf(network, 'inverter'))
    steps.add(
      `power-precharge-${inverter.id}`,
      joinText(
        `Pre-charge ${nameInSentence(inverter.name)}: bridge its open fuse holder with `,
        `${prechargeWords(work.after.bank.nominalV)}, `,
        'or use its own pre-charge. Then put its fuse in at once.',
      ),
      'Its empty capacitors draw hundreds of amperes for a moment. The spark burns the fuse contacts.',
      { numbers: numbersOf(work, `${inverter.id}-fuse`) },
    )
  const loads = unitsOf(network, 'load')
  if (loads.length > 0)
    steps.add(
      'power-branches',
      'Put the fuses of the loads in, one at a time. Look at each load before the next.',
      'A fault then shows on one branch and not on all of them.',
      { numbers: numbersOf(work, ...loads.map(({ id }) => `${id}-fuse`)) },
    )
}

function closeStarting(steps: Steps, work: Work): void {
  if (startersOf(work).length > 0)
    steps.add(
      'power-starting',
      hasChassisNegative(work)
        ? 'Put the negative lead back on the starting battery, last of all on its side.'
        : 'Put the negative lead back on the starting battery.',
      'It goes on last because it came off first.',
    )
  const watched = startersOf(work).filter(({ monitored }) => monitored === 'yes')
  if (watched.length > 0)
    steps.add(
      'power-computer',
      'Tell the vehicle computer about the battery as its maker says, and clear the stored faults.',
      'Until then it charges as it did for the old one.',
    )
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

/** When a unit can be set: before its source is there. */
const beforeWords = (unit: SourceUnit | DcdcUnit): string => {
  if (unit.kind === 'dcdc') return 'before its fuses go in'
  if (unit.from === 'mains') return 'before you plug the mains in'
  return unit.from === 'sun' ? 'before you connect the panels' : 'before it starts'
}

/** Settings before a source is switched on: each charger, the monitor, the inverter. */
export function settingSteps(work: Work): WorkStep[] {
  const steps = new Steps('settings')
  setChargers(steps, work)
  setMonitor(steps, work)
  setCutOffs(steps, work)
  return steps.all
}

function setChargers(steps: Steps, work: Work): void {
  const { q, many } = work.after
  const cards = settingsCards(work.after)
  for (const unit of chargingUnits(work))
    if (unit.kind === 'dcdc' && isKeeper(unit))
      steps.add(
        `set-${unit.id}`,
        joinText(
          `Set ${nameInSentence(unit.name)} ${beforeWords(unit)}: lead, ${q(unit.setV, 'V')}, `,
          `at most ${q(unit.mostA, 'A')}. It stops below ${q(unit.lowestInputV, 'V')} of the lithium.`,
        ),
        'It keeps the lead full and must not empty the lithium for it.',
      )
    else if (unit.kind === 'dcdc' || unit.from !== 'other')
      steps.add(
        `set-${unit.id}`,
        joinText(
          `Set ${nameInSentence(unit.name)} ${beforeWords(unit)}: lithium, `,
          `${chargeSettings(unit, cards, q)}, equalise off, temperature compensation off.`,
        ),
        'A lead profile holds too much voltage for too long, and goes higher in the cold.',
      )
  for (const alternator of many.alternators)
    if (alternator.regulator === 'external')
      steps.add(
        `set-${partId(alternator.$path)}`,
        joinText(
          `Set the regulator of ${nameInSentence(alternator.$name)}: voltage, `,
          'current, and the temperature limit with its probe on the case.',
        ),
        'Lithium takes all the current for hours. The case shows when that is too much.',
      )
}

function setMonitor(steps: Steps, work: Work): void {
  if (!isShunted(work)) return
  const { q } = work.after
  const monitor = monitorSettings(work.after)
  steps.add(
    'set-monitor',
    joinText(
      `Set the monitor: ${q(monitor.capacityAh, 'Ah')}, `,
      `full at ${q(monitor.chargedV, 'V')} and ${monitor.tailPercent} % tail current.`,
    ),
    'It counts from these numbers.',
  )
}

/** The stops and warnings that act before the battery disconnects everything. */
function setCutOffs(steps: Steps, { after }: Work): void {
  const { bank, q, many } = after
  for (const inverter of many.inverters)
    steps.add(
      `set-${partId(inverter.$path)}`,
      joinText(
        `Set the cut-off of ${nameInSentence(inverter.$name)} to ${q(inverter.cutOffV, 'V')}, `,
        `above the battery’s own cut-off of ${q(bank.bmsUnderV, 'V')}.`,
      ),
      'The inverter should stop before the battery disconnects everything.',
    )
  const warning = warningOf(after)
  if (warning)
    steps.add(
      'set-warning',
      warning === 'stop'
        ? showStopSignal
        : 'Set the alarm before the cut-off, and place it where somebody hears it.',
      'A battery that cuts off without a warning takes the lights and the radio with it.',
    )
}

/** Each source alone, after its settings; the engine last. */
export function sourceSteps(work: Work): WorkStep[] {
  const steps = new Steps('sources')
  closeSources(steps, work)
  connectOutside(steps, work)
  startEngines(steps, work)
  return steps.all
}

/** The fuses of everything that charges. */
function closeSources(steps: Steps, work: Work): void {
  const fusesOf = (units: readonly { readonly id: string }[]): string[] =>
    numbersOf(
      work,
      ...units.flatMap(({ id }) => [
        `${id}-fuse`,
        `${id}-in-fuse`,
        `${id}-in-far-fuse`,
        `${id}-far-fuse`,
        `${id}-out-fuse`,
      ]),
    )
  const links = work.after.many.links.map(({ $path }) => ({ id: partId($path) }))
  // Lead that is joined to the bar has had its fuse already.
  const kept = leadThatStays(work)?.serves === 'reserve' ? numbersOf(work, 'lead-fuse') : []
  const fuses = [...new Set([...fusesOf([...chargingUnits(work), ...links]), ...kept])]
  if (fuses.length > 0)
    steps.add(
      'source-fuses',
      'Put in the fuses of everything that charges, one unit at a time.',
      'Each unit wakes up with its new settings.',
      { numbers: fuses },
    )
}

/** Panels, mains and tow plug. */
function connectOutside(steps: Steps, work: Work): void {
  const { network, after } = work
  if (after.many.solar.length > 0)
    steps.add(
      'power-panels',
      'Connect the panels to their controller, then take the covers off.',
      'The controller reads the system voltage from the battery, so the battery comes first.',
    )
  const mains = unitsOf(network, 'source').some(({ from }) => from === 'mains')
  if (mains || after.many.inverters.length > 0)
    steps.add(
      'power-mains',
      after.many.inverters.length > 0
        ? `${mains ? 'Plug the mains in. ' : ''}Switch the inverter on last.`
        : 'Plug the mains in.',
      'You see each source work by itself before they charge together.',
    )
  if (plugsOf(work).length > 0)
    steps.add(
      'source-tow-plug',
      'Plug the tow plug in and look at both its pins.',
      'A corroded pin gets hot under charge current.',
      { numbers: plugsOf(work) },
    )
}

function startEngines(steps: Steps, { after }: Work): void {
  if (after.many.sources.length > 0)
    steps.add('source-others', 'Release the other generators.', 'The bank can take their current now.')
  if (after.many.alternators.length > 0)
    steps.add(
      'source-engine',
      'Start the engine. Read voltage and current at idle, then at cruise.',
      'The alternator is the last source, with everything else working.',
      {
        caution:
          'Never open the main switch, or any switch between an alternator and its battery, while the engine runs.',
      },
    )
}

/** Work after the joints have been warm. */
export function laterSteps({ network }: Work): WorkStep[] {
  const steps = new Steps('later')
  if (network.runs.some(({ state }) => state === 'new'))
    steps.add(
      'later-torque',
      'After the first hour under load, switch off and re-tighten every bolted joint once.',
      'Lugs and bars settle when they have been warm for the first time.',
    )
  return steps.all
}
