import { goodJob, link, straightJob, withMeasured, withValues, type Values } from '#core/testing'
import type { JobDocument } from '#core/job/document'
import { wired } from '#core/wiring/wiring'
import type { Case } from './battery.cases'

const [good, changed, open, bad] = ['suits', 'suits-once-changed', 'measure-first', 'does-not-suit'] as const

/** A job with its wiring proposed, and some of it set by hand. */
const wiredWith = (values: Values = {}, job: JobDocument = goodJob()): JobDocument =>
  wired(withValues(job, values), {})
const [onFeed, onFuse, onMain, onBattery] = [
  'runs/charger-1-feed',
  'fittings/charger-1-fuse',
  'fittings/main-fuse',
  'candidate',
]
const onStarting = 'startingBatteries/starting-1'
const known = { 'runs/charger-1-feed/lengthM': 3, 'runs/charger-1-feed/areaMm2': 16 }
const inverter = (values: Values = {}): JobDocument =>
  withMeasured(goodJob(), 'inverters', {
    continuousW: 1000,
    surgeW: 2000,
    surgeS: 3,
    efficiency: 90,
    ...values,
  })
/** The DC-DC of a trailer at the end of nine metres and a plug. */
const plugged = (values: Values): JobDocument =>
  wired(
    withMeasured(
      goodJob(),
      'conductors',
      {
        lengthM: 9,
        areaMm2: 25,
        fromPost: 'starting',
        toPost: 'house',
        fuseKind: 'class-t',
        fuseA: 60,
        farFuseKind: 'class-t',
        farFuseA: 60,
        connectorA: 100,
        connectorMostMm2: 50,
        ...values,
      },
      { of: 'links/link-1' },
    ),
    {},
  )

/** The same job on a boat. */
const afloat = (job: JobDocument = goodJob()): JobDocument => ({
  ...job,
  job: { ...job.job, craft: 'vessel' },
})
/** An alternator straight onto the house bars, without a battery of its own. */
const behindSwitch = (values: Values = {}): JobDocument =>
  wiredWith(
    {
      'startingBatteries/starting-1/present': 'no',
      'alternators/alternator-1/chargeStopWire': 'yes',
      ...values,
    },
    straightJob({ kind: 'direct' }),
  )

/** By check id: each side of its limits, and its input unknown. */
export const wiringCases: Readonly<Record<string, readonly Case[]>> = {
  'wiring.ampacity': [
    {
      says: 'a run sized for its fuse suits',
      job: wiredWith(known),
      on: onFeed,
      verdict: good,
      shows: ['30 A'],
    },
    {
      says: 'in air that leaves it less than flows, its length not known',
      job: wiredWith({
        'runs/charger-1-feed/areaMm2': 6,
        'runs/charger-1-feed/insulationC': '70',
        'runs/charger-1-feed/airC': 60,
      }),
      on: onFeed,
      verdict: changed,
      shows: ['in air of 60 °C'],
      remedy: 'run.thicker',
    },
    {
      says: '2.5 mm² for 30 A in the engine space does not, however long it is: the length is not known',
      job: wiredWith({ 'runs/charger-1-feed/areaMm2': 2.5, 'runs/charger-1-feed/engineSpace': 'yes' }),
      on: onFeed,
      verdict: changed,
      remedy: 'run.thicker',
    },
  ],
  'wiring.drop': [
    { says: 'three metres lose little', job: wiredWith(known), on: onFeed, verdict: good },
    {
      says: 'thirty metres of the same size lose too much',
      job: wiredWith({ 'runs/charger-1-feed/lengthM': 30, 'runs/charger-1-feed/areaMm2': 10 }),
      on: onFeed,
      verdict: changed,
      remedy: 'run.thicker',
    },
    {
      says: 'three metres of 16 mm² that come back by 4 mm²',
      job: wiredWith({ ...known, 'runs/charger-1-return/areaMm2': 4 }),
      on: onFeed,
      verdict: changed,
      remedy: 'run.thicker',
      shows: ['0.57 V', 'back 4 mm², 3 m'],
    },
    {
      says: 'a run that stays and nobody knows, and comes back by 2.5 mm²',
      job: wiredWith({ 'runs/panel-return/areaMm2': 2.5, 'runs/panel-return/lengthM': 12 }),
      on: 'runs/panel-feed',
      verdict: changed,
      remedy: 'run.thicker',
      shows: ['needs'],
    },
    {
      says: 'a length that is not known, where the range decides',
      job: wiredWith({ 'runs/charger-1-feed/areaMm2': 10 }),
      on: onFeed,
      verdict: open,
    },
    {
      says: 'a length that is not known, where the whole range suits',
      job: wiredWith({ 'runs/charger-1-feed/areaMm2': 95 }),
      on: onFeed,
      verdict: good,
    },
    {
      says: 'nine metres of 10 mm² to a DC-DC, through a plug: judged as one way',
      job: plugged({ areaMm2: 10 }),
      on: 'runs/link-1-in-feed',
      verdict: changed,
      remedy: 'cable.thicker',
      shows: ['left at the DC-DC'],
    },
  ],
  'wiring.fuse-rating': [
    {
      says: 'a fuse between the current and the run’s ampacity',
      job: wiredWith(known),
      on: onFeed,
      verdict: good,
    },
    {
      says: 'a fuse larger than its run, whatever else is not known',
      job: wiredWith({ 'runs/charger-1-feed/areaMm2': 4, 'fittings/charger-1-fuse/ratedA': 100 }),
      on: onFeed,
      verdict: changed,
      remedy: 'fitting.fuse',
    },
    {
      says: 'a conductor that stays and nobody knows, its fuse left out',
      job: wiredWith({ 'fittings/panel-fuse/absent': 'yes' }),
      on: 'runs/panel-feed',
      verdict: changed,
      remedy: 'fitting.add',
    },
    {
      says: 'a fuse smaller than the current',
      job: wiredWith({ ...known, 'fittings/charger-1-fuse/ratedA': 25 }),
      on: onFeed,
      verdict: changed,
      remedy: 'fitting.fuse',
    },
    {
      says: 'a fuse that was left out, its length not known',
      job: wiredWith({
        'fittings/charger-1-fuse/absent': 'yes',
        'runs/charger-1-feed/areaMm2': 16,
      }),
      on: onFeed,
      verdict: changed,
      remedy: 'fitting.add',
      shows: ['no fuse at all'],
    },
  ],
  'wiring.both-ends': [
    {
      says: 'a fuse at each battery',
      job: wiredWith({}, straightJob({ kind: 'vsr', closesV: 13.3, opensV: 12.8 })),
      on: 'runs/link-1-feed',
      verdict: good,
    },
    {
      says: 'a link with batteries at both ends and a fuse at one, its length not known',
      job: wiredWith(
        { 'fittings/link-1-far-fuse/absent': 'yes' },
        straightJob({ kind: 'vsr', closesV: 13.3, opensV: 12.8 }),
      ),
      on: 'runs/link-1-feed',
      verdict: changed,
      remedy: 'fitting.add',
      shows: ['starting battery'],
    },
    {
      says: 'nine metres to a DC-DC whose fuse at the starting battery was left out, the one at its far end stays',
      job: withValues(plugged({}), { 'fittings/link-1-in-fuse/absent': 'yes' }),
      on: 'runs/link-1-in-feed',
      verdict: changed,
      remedy: 'fitting.add',
      shows: ['starting battery'],
    },
    {
      says: 'a diode isolator’s cable whose fuse at the house bank was left out',
      job: wiredWith(
        { 'fittings/link-1-fuse/absent': 'yes', 'fittings/main-fuse/absent': 'yes' },
        straightJob({ kind: 'diode' }),
      ),
      on: 'runs/link-1-stub',
      verdict: changed,
      remedy: 'fitting.add',
    },
  ],
  'wiring.fuse-interrupt': [
    { says: 'a family that interrupts the short', job: wiredWith(), on: onMain, verdict: good },
    {
      says: 'a large blade before a lithium bank, its distance not known',
      job: wiredWith({ 'fittings/main-fuse/family': 'maxi-blade', 'fittings/main-fuse/ratedA': 100 }),
      on: onMain,
      verdict: changed,
      remedy: 'fitting.fuse',
    },
    {
      says: 'a short that no family of fuses interrupts',
      job: wiredWith({ 'candidate/resistanceMohm': 1 }),
      on: onMain,
      verdict: bad,
      remedy: 'battery.other',
      shows: ['20000 A'],
    },
  ],
  'wiring.fuse-voltage': [
    {
      says: 'a fuse made for more than the system is charged to',
      job: wiredWith(),
      on: onFuse,
      verdict: good,
    },
    {
      says: 'a blade of 32 V at 48 V, whatever is not known',
      job: wiredWith({
        'candidate/nominalV': '48',
        'fittings/charger-1-fuse/family': 'blade',
        'fittings/charger-1-fuse/ratedA': 40,
      }),
      on: onFuse,
      verdict: changed,
      remedy: 'fitting.fuse',
    },
  ],
  'wiring.fuse-surge': [
    {
      says: 'a fuse that holds the surge',
      job: wiredWith({}, inverter()),
      on: 'fittings/inverter-1-fuse',
      verdict: good,
    },
    {
      says: 'one that a surge of ten seconds blows, the length not known',
      job: wiredWith(
        { 'fittings/inverter-1-fuse/ratedA': 100, 'fittings/inverter-1-fuse/family': 'class-t' },
        inverter({ surgeW: 3000, surgeS: 10 }),
      ),
      on: 'fittings/inverter-1-fuse',
      verdict: changed,
      remedy: 'fitting.fuse',
    },
  ],
  'wiring.fuse-place': [
    { says: 'a fuse at the post', job: wiredWith(), on: onMain, verdict: good, shows: ['150 mm'] },
    {
      says: 'two metres from the battery, however near to the switch behind it',
      job: wiredWith({ 'runs/main-lead/lengthM': 2, 'runs/main-feed-1/lengthM': 0.1 }),
      on: onMain,
      verdict: changed,
      shows: ['2000 mm'],
      remedy: 'fitting.nearer',
    },
    {
      says: 'half a metre of cable before it',
      job: wiredWith({ 'fittings/main-fuse/distanceMm': 500 }),
      on: onMain,
      verdict: changed,
      remedy: 'fitting.nearer',
    },
    {
      says: 'half a metre in a sheath of its own, the rest not known',
      job: wiredWith({ 'fittings/main-fuse/distanceMm': 500, 'fittings/main-fuse/sheathed': 'yes' }),
      on: onMain,
      verdict: good,
    },
  ],
  'wiring.grading': [
    { says: 'a branch that goes before the main fuse', job: wiredWith(), on: onFuse, verdict: good },
    {
      says: 'a main fuse no larger than the branch, lengths not known',
      job: wiredWith({
        'fittings/main-fuse/ratedA': 125,
        'fittings/main-fuse/family': 'class-t',
        'fittings/charger-1-fuse/ratedA': 100,
        'fittings/charger-1-fuse/family': 'class-t',
      }),
      on: onFuse,
      verdict: changed,
      remedy: 'fitting.fuse',
    },
    {
      says: 'battery fuses that go before the branch',
      job: wiredWith({
        'candidate/parallel': 2,
        'fittings/bank-1-fuse/ratedA': 50,
        'fittings/bank-1-fuse/family': 'class-t',
        'fittings/bank-2-fuse/ratedA': 50,
        'fittings/bank-2-fuse/family': 'class-t',
        'fittings/charger-1-fuse/ratedA': 80,
        'fittings/charger-1-fuse/family': 'class-t',
      }),
      on: onFuse,
      verdict: changed,
      remedy: 'fitting.fuse',
      shows: ['2 battery fuses together', '100 A'],
    },
    {
      says: 'a main fuse larger than the battery fuses before it',
      job: wiredWith({
        'candidate/parallel': 2,
        'fittings/bank-1-fuse/ratedA': 100,
        'fittings/bank-2-fuse/ratedA': 100,
        'fittings/main-fuse/ratedA': 400,
      }),
      on: onMain,
      verdict: changed,
      remedy: 'fitting.fuse',
      shows: ['hold only 200 A'],
    },
    {
      says: 'battery fuses that are proposed for the main fuse behind them',
      job: wiredWith({ 'candidate/parallel': 2 }),
      on: onMain,
      verdict: good,
    },
  ],
  'wiring.switch-rating': [
    {
      says: 'a switch for its fuse’s current',
      job: wiredWith(),
      on: 'fittings/main-switch',
      verdict: good,
    },
    {
      says: 'a switch of 30 A for all loads, lengths not known',
      job: wiredWith({ 'fittings/main-switch/ratedA': 30 }),
      on: 'fittings/main-switch',
      verdict: changed,
      remedy: 'fitting.larger',
    },
    {
      says: 'the shunt that is there',
      job: wiredWith(),
      on: 'fittings/shunt',
      verdict: good,
      shows: ['500 A'],
    },
    {
      says: 'a shunt of 20 A that is there, lengths not known',
      job: wiredWith({ 'use/shuntA': 20 }),
      on: 'fittings/shunt',
      verdict: changed,
      remedy: 'fitting.larger',
    },
    {
      says: 'a shunt whose print nobody has read, and an inverter that may be too much for it',
      job: wired(withValues(inverter({ continuousW: 2500 }), { 'use/shuntA': null }), {}),
      on: 'fittings/shunt',
      verdict: open,
    },
  ],
  'wiring.busbar-rating': [
    {
      says: 'a bar for its fuse’s current',
      job: wiredWith(),
      on: 'fittings/bar-plus',
      verdict: good,
    },
    {
      says: 'a bar of 25 A, lengths not known',
      job: wiredWith({ 'fittings/bar-plus/ratedA': 25 }),
      on: 'fittings/bar-plus',
      verdict: changed,
      remedy: 'fitting.larger',
    },
  ],
  'wiring.plug': [
    { says: 'a plug for its fuse and its run', job: plugged({}), on: 'fittings/link-1-plug', verdict: good },
    {
      says: 'a plug of 50 A behind a fuse of 60 A',
      job: plugged({ connectorA: 50 }),
      on: 'fittings/link-1-plug',
      verdict: changed,
      remedy: 'fitting.larger',
    },
    {
      says: 'contacts that are too small for the run, though its length is not known',
      job: plugged({ connectorMostMm2: 16, lengthM: null }),
      on: 'fittings/link-1-plug',
      verdict: changed,
      remedy: 'fitting.larger',
    },
  ],
  'wiring.equal-leads': [
    {
      says: 'equal leads to a post',
      job: wiredWith({ 'candidate/parallel': 2 }),
      on: onBattery,
      verdict: good,
    },
    {
      says: 'a ladder of four, lengths not known',
      job: wiredWith({
        'candidate/parallel': 4,
        'candidate/layout': 'ladder',
        'candidate/resistanceMohm': 1,
      }),
      on: onBattery,
      verdict: changed,
      remedy: 'bank.equal-leads',
    },
    {
      says: 'one lead three metres longer than the others',
      job: wiredWith({
        'candidate/parallel': 2,
        'runs/bank-2-link/lengthM': 3,
        'runs/bank-2-return/lengthM': 3,
      }),
      on: onBattery,
      verdict: changed,
      remedy: 'bank.equal-leads',
    },
  ],
  'wiring.shunt-bypassed': [
    { says: 'all returns behind the shunt', job: wiredWith(), on: onBattery, verdict: good },
    {
      says: 'a return on the battery’s own post, its length not known',
      job: wiredWith({ 'runs/panel-feed/landsOn': 'battery' }),
      on: onBattery,
      verdict: changed,
      remedy: 'run.on-bar',
    },
  ],
  'wiring.metal-return': [
    { says: 'a return for each run', job: wiredWith({}, afloat()), on: onBattery, verdict: good },
    {
      says: 'an inverter and a charger through the engine block, lengths not known',
      job: wiredWith(
        {
          'runs/charger-1-feed/returnBy': 'chassis',
          'runs/inverter-1-feed/returnBy': 'chassis',
        },
        afloat(inverter()),
      ),
      on: onBattery,
      verdict: changed,
      remedy: 'run.return-cable',
      shows: ['engine block'],
    },
    {
      says: 'a DC-DC whose surveyed cable comes back by the engine',
      job: wiredWith(
        {},
        afloat(
          withMeasured(
            goodJob(),
            'conductors',
            { lengthM: 4, areaMm2: 16, returnBy: 'chassis', fuseKind: 'anl', fuseA: 60 },
            { of: 'links/link-1' },
          ),
        ),
      ),
      on: onBattery,
      verdict: changed,
      remedy: 'run.return-cable',
    },
  ],
  'wiring.engine-switch': [
    {
      says: 'a starting battery that stays on the alternator',
      job: wiredWith(),
      on: 'links/link-1',
      verdict: good,
    },
    {
      says: 'an alternator whose only battery is behind the main switch, lengths not known',
      job: behindSwitch(),
      on: 'links/link-1',
      verdict: changed,
      remedy: 'fitting.battery-side',
      shows: ['main switch'],
    },
    {
      says: 'the same with a surge protector, which limits the spike',
      job: behindSwitch({ 'alternators/alternator-1/surgeProtector': 'yes' }),
      on: 'links/link-1',
      verdict: good,
      shows: ['limits the spike'],
    },
    {
      says: 'the same on the battery side of the switch',
      job: behindSwitch({ 'fittings/link-1-fuse/standsOn': 'battery' }),
      on: 'links/link-1',
      verdict: good,
    },
  ],
  'wiring.bond': [
    { says: 'negatives joined by one bond', job: wiredWith(), on: onBattery, verdict: good },
    {
      says: 'negatives kept apart, and a DC-DC that joins them, lengths not known',
      job: wiredWith({ 'use/negatives': 'separate' }),
      on: onBattery,
      verdict: changed,
      remedy: 'dcdc.isolated',
    },
    {
      says: 'negatives kept apart by an isolated DC-DC',
      job: wiredWith({ 'use/negatives': 'separate' }, link({ isolation: 'isolated' })),
      on: onBattery,
      verdict: good,
    },
  ],
  'wiring.charge-stop': [
    {
      says: 'a line to each source',
      job: wiredWith({ 'candidate/warning': 'stop' }),
      on: onBattery,
      verdict: good,
    },
    {
      says: 'the contactor of the loads left out, lengths not known',
      job: wiredWith({ 'candidate/warning': 'stop', 'fittings/load-stop/absent': 'yes' }),
      on: onBattery,
      verdict: changed,
      remedy: 'fitting.add',
    },
    {
      says: 'an alternator straight on the bank that no line can stop, lengths not known',
      job: wiredWith({ 'candidate/warning': 'stop' }, straightJob({ kind: 'direct' })),
      on: onBattery,
      verdict: changed,
      remedy: 'dcdc.add',
    },
  ],
  'wiring.jump-switch': [
    { says: 'none', job: wiredWith({}), on: onStarting, verdict: good },
    {
      says: 'one that stays joins two banks without a fuse',
      job: wiredWith({ 'startingBatteries/starting-1/jumpSwitch': 'yes' }),
      on: onStarting,
      verdict: changed,
      remedy: 'start.no-jump',
    },
    {
      says: 'whether there is one is to be looked at, where nobody knows',
      job: wiredWith({ 'startingBatteries/starting-1/jumpSwitch': null }),
      on: onStarting,
      verdict: open,
    },
  ],
  'wiring.mains': [
    {
      says: 'a charger on shore, and no inverter',
      job: wiredWith(),
      on: onBattery,
      verdict: good,
      shows: ['A licensed person'],
    },
    {
      says: 'an inverter whose sockets are its own',
      job: wired(inverter({ sockets: 'own', transferSwitch: 'none' }), {}),
      on: onBattery,
      verdict: good,
    },
    {
      says: 'an inverter on sockets of shore, without a transfer switch, lengths not known',
      job: wired(inverter({ sockets: 'shared', transferSwitch: 'none' }), {}),
      on: onBattery,
      verdict: changed,
      remedy: 'inverter.transfer',
    },
    {
      says: 'the same behind a transfer switch',
      job: wired(inverter({ sockets: 'shared', transferSwitch: 'builtIn' }), {}),
      on: onBattery,
      verdict: good,
    },
    {
      says: 'sockets at which nobody has looked',
      job: wired(inverter({ sockets: null, transferSwitch: 'none' }), {}),
      on: onBattery,
      verdict: open,
    },
  ],
  'wiring.isolation': [
    {
      says: 'a main switch that is left out, and the draw on the new battery over the winter',
      job: wiredWith({
        'use/layupWeeks': 20,
        'startingBatteries/starting-1/present': 'no',
        'fittings/main-switch/absent': 'yes',
      }),
      on: onBattery,
      verdict: changed,
      remedy: 'fitting.add',
      shows: ['No switch isolates', 'starter motor'],
    },
    {
      says: 'no main switch, and loads connected all winter',
      job: wiredWith({ 'use/layupWeeks': 20, 'fittings/main-switch/absent': 'yes' }),
      on: onBattery,
      verdict: changed,
      remedy: 'fitting.add',
      shows: ['fuse panel'],
    },
    {
      says: 'a panel that somebody put on the battery side of the switch on purpose',
      job: wiredWith({ 'use/layupWeeks': 20, 'fittings/panel-fuse/standsOn': 'battery' }),
      on: onBattery,
      verdict: good,
      shows: ['Always on: fuse panel'],
    },
    { says: 'a main switch', job: wiredWith({ 'use/layupWeeks': 20 }), on: onBattery, verdict: good },
    {
      says: 'a motorcycle without one, that draws all winter, lengths not known',
      job: wiredWith(
        { 'use/layupWeeks': 20, 'startingBatteries/starting-1/present': 'no' },
        { ...goodJob(), job: { ...goodJob().job, craft: 'motorcycle' } },
      ),
      on: onBattery,
      rules: { layupSchool: 'topped' },
      verdict: changed,
      remedy: 'layup.disconnect',
    },
  ],
}
