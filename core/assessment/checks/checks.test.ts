import { describe, expect, it } from 'vitest'
import {
  assessed,
  checksOf,
  alternator,
  applies,
  candidate,
  charger,
  goodJob,
  link,
  resultOf,
  straightJob,
  withMeasured,
  withValues,
  type Values,
  long,
} from '#core/testing'
import type { JobDocument } from '#core/job/document'
import type { RuleOverrides } from '#core/rules/rules'
import type { Verdict } from '#core/system/verdict'
import { batteryCases, coldCases, type Case } from './battery.cases'
import { allChecks } from './index'
import { schoolCases, systemCases } from './system.cases'
import { wholeCases } from './whole.cases'
import { wiringCases } from './wiring.cases'

const place = (job: JobDocument, coldestC: number | null, hottestC: number | null = 35): JobDocument =>
  withValues(job, { 'place/coldestC': coldestC, 'place/hottestC': hottestC })
const device = (tripV: number | null, dcAtOnceA = 40): JobDocument =>
  withMeasured(withValues(goodJob(), { 'use/dcAtOnceA': dcAtOnceA }), 'devices', { kind: 'alarm', tripV })
const disconnect = (tripV: number): JobDocument =>
  withMeasured(goodJob(), 'devices', { kind: 'disconnect', tripV })
const inverter = (continuousW: number, more: Values = {}): JobDocument =>
  withMeasured(withValues(goodJob(), more), 'inverters', { continuousW, efficiency: 90 })

const [onCharger, onLink, onDevice] = ['chargers/charger-1', 'links/link-1', 'devices/device-1']
const good: Verdict = 'suits'
const changed: Verdict = 'suits-once-changed'
const open: Verdict = 'measure-first'
const bad: Verdict = 'does-not-suit'

/** By check id: each side of its limits, and its input unknown. */
const cases: Readonly<Record<string, readonly Case[]>> = {
  ...batteryCases,
  ...systemCases,
  ...wholeCases,
  ...wiringCases,
  'charger.absorption': [
    {
      says: 'inside the window suits',
      job: charger({ absorptionV: 14.4 }),
      on: onCharger,
      verdict: good,
      shows: ['14.4 V', '0.2 V to spare'],
    },
    { says: 'at the very edge suits', job: charger({ absorptionV: 14.6 }), on: onCharger, verdict: good },
    {
      says: 'fixed above the recommended voltage does not suit',
      job: charger({ absorptionV: 14.7 }),
      on: onCharger,
      verdict: bad,
      shows: ['0.1 V over'],
      remedy: 'charger.replace',
    },
    {
      says: 'above the absolute limit compares with it',
      job: charger({ absorptionV: 14.9 }),
      on: onCharger,
      verdict: bad,
      shows: ['14.8 V'],
    },
    {
      says: 'above the BMS cut compares with it',
      job: charger({ absorptionV: 15.3 }),
      on: onCharger,
      verdict: bad,
      shows: ['15.0 V'],
    },
    {
      says: 'too high but adjustable suits once set',
      job: charger({ absorptionV: 14.8, profile: 'adjustable' }),
      on: onCharger,
      verdict: changed,
      remedy: 'charger.set-absorption',
    },
    {
      says: 'too high with a lithium profile to set suits once set',
      job: charger({ absorptionV: 14.8, profile: 'selectable' }),
      on: onCharger,
      verdict: changed,
      remedy: 'charger.use-lithium-profile',
    },
    {
      says: 'inside the usual window does not, where this battery’s electronics cut before',
      job: withValues(charger({ absorptionV: 14.5 }), { 'candidate/bmsOverV': 14.4 }),
      on: onCharger,
      verdict: bad,
      shows: ['14.4 V'],
    },
    {
      says: 'of one labelled 24 V is asked for as such, though the old bank was of 12 V',
      job: withValues(charger({ nominalV: '24', absorptionV: null }), { 'candidate/series': 2 }),
      on: onCharger,
      verdict: open,
    },
    {
      says: 'low and alone does not suit, and says how far it charges',
      job: charger({ absorptionV: 13.6 }),
      on: onCharger,
      verdict: bad,
      shows: ['never balance', 'no other source'],
    },
    {
      says: 'low, but another charger tops up, suits once accepted',
      job: withMeasured(charger({ absorptionV: 13.6 }), 'chargers', {
        ratedA: 20,
        profile: 'lithium',
        absorptionV: 14.4,
        floatMode: 'off',
        equaliseStage: 'none',
        compensation: 'none',
      }),
      on: onCharger,
      verdict: changed,
      remedy: 'charger.top-up',
    },
    {
      says: 'under the window that fills and balances all the same suits, and says so',
      job: charger({ absorptionV: 14.11 }),
      on: onCharger,
      verdict: good,
      shows: ['it still fills the battery'],
    },
    {
      says: 'held at one voltage for as long as it is plugged in is judged over those hours',
      job: charger({
        kind: 'converter',
        absorptionV: 13.8,
        floatMode: 'on',
        floatV: 13.8,
        hours: 10,
        ratedA: 45,
      }),
      on: onCharger,
      verdict: good,
      shows: ['10 h'],
    },
    {
      says: 'far too low does not suit even with a top-up',
      job: withMeasured(charger({ absorptionV: 13.1 }), 'chargers', {
        ratedA: 20,
        profile: 'lithium',
        absorptionV: 14.4,
        floatMode: 'off',
        equaliseStage: 'none',
        compensation: 'none',
      }),
      on: onCharger,
      verdict: bad,
    },
    {
      says: 'not known is to be measured',
      job: charger({ absorptionV: null }),
      on: onCharger,
      verdict: open,
    },
    {
      says: 'without a lithium profile does not suit under the school that replaces',
      job: charger({}),
      on: onCharger,
      verdict: bad,
      rules: { chargerSchool: 'replace' },
    },
    {
      says: 'with a lithium profile suits under either school',
      job: charger({ profile: 'lithium' }),
      on: onCharger,
      verdict: good,
      rules: { chargerSchool: 'replace' },
    },
    { says: 'of a DC-DC is judged alike', job: link({ absorptionV: 14.9 }), on: onLink, verdict: bad },
    ...schoolCases,
  ],
  'charger.float': [
    { says: 'under the highest float suits', job: charger({ floatV: 13.5 }), on: onCharger, verdict: good },
    {
      says: 'over it, fixed, does not suit',
      job: charger({ floatV: 13.8 }),
      on: onCharger,
      verdict: bad,
      shows: ['0.2 V over'],
    },
    {
      says: 'over it, adjustable, suits once set',
      job: charger({ floatV: 13.8, profile: 'adjustable' }),
      on: onCharger,
      verdict: changed,
      remedy: 'charger.set-float',
    },
    { says: 'that stops suits', job: charger({ floatMode: 'off' }), on: onCharger, verdict: good },
    {
      says: 'on where the battery wants none does not suit',
      job: withValues(charger({}), { 'candidate/floatAllowed': 'off' }),
      on: onCharger,
      verdict: bad,
    },
    {
      says: 'on where the battery wants none, adjustable, suits once off',
      job: withValues(charger({ profile: 'adjustable' }), { 'candidate/floatAllowed': 'off' }),
      on: onCharger,
      verdict: changed,
      remedy: 'charger.float-off',
    },
    { says: 'not known is to be measured', job: charger({ floatV: null }), on: onCharger, verdict: open },
  ],
  'charger.equalise': [
    { says: 'none suits', job: charger({ equaliseStage: 'none' }), on: onCharger, verdict: good },
    {
      says: 'switched off suits',
      job: charger({ equaliseStage: 'off', equaliseV: 15.5 }),
      on: onCharger,
      verdict: good,
    },
    {
      says: 'on for good, but can be set low enough, suits once set',
      job: charger({ equaliseStage: 'fixed', equaliseV: 15.5, equaliseLeastV: 14.2 }),
      on: onCharger,
      verdict: changed,
      remedy: 'charger.set-equalise',
    },
    {
      says: 'too high, can be switched off, suits once off',
      job: charger({ equaliseStage: 'switchable', equaliseV: 15.5 }),
      on: onCharger,
      verdict: changed,
      remedy: 'charger.equalise-off',
      shows: ['15.5 V', '14.8 V', '0.7 V over'],
    },
    {
      says: 'under the absolute limit but over the cut of the BMS names the cut',
      job: withValues(charger({ equaliseStage: 'switchable', equaliseV: 14.8 }), {
        'candidate/absoluteHighV': 15,
        'candidate/bmsOverV': 14.7,
      }),
      on: onCharger,
      verdict: changed,
      shows: ['14.8 V', '14.7 V', '0.1 V over'],
    },
    {
      says: 'low enough suits',
      job: charger({ equaliseStage: 'switchable', equaliseV: 14.5 }),
      on: onCharger,
      verdict: good,
    },
    {
      says: 'that cannot be switched off is a hard stop, however low',
      job: charger({ equaliseStage: 'fixed', equaliseV: 14.5 }),
      on: onCharger,
      verdict: bad,
    },
    {
      says: 'stage not known is to be looked up',
      job: charger({ equaliseStage: null, equaliseV: 15.5 }),
      on: onCharger,
      verdict: open,
    },
    {
      says: 'voltage not known does not matter when it cannot be switched off',
      job: charger({ equaliseStage: 'fixed', equaliseV: null }),
      on: onCharger,
      verdict: bad,
    },
  ],
  'charger.temperature-compensation': [
    { says: 'none suits', job: charger({ compensation: 'none' }), on: onCharger, verdict: good },
    {
      says: 'lifts over the limit in the cold: 14.4 + 6 × 4 mV × 25 K = 15.0 V',
      job: place(charger({ compensation: 'fixed', compensationMv: 4 }), 0, 26),
      on: onCharger,
      verdict: bad,
      shows: ['15.0 V'],
    },
    {
      says: 'drops under the window in the heat',
      job: place(charger({ compensation: 'fixed', compensationMv: 4 }), 24, 45),
      on: onCharger,
      verdict: bad,
      shows: ['13.92 V'],
    },
    {
      says: 'small and in a steady place suits',
      job: place(charger({ compensation: 'fixed', compensationMv: 2 }), 18, 32),
      on: onCharger,
      verdict: good,
    },
    {
      says: 'that can be switched off suits once off',
      job: place(charger({ compensation: 'switchable', compensationMv: 4 }), 0),
      on: onCharger,
      verdict: changed,
      remedy: 'charger.compensation-off',
    },
    {
      says: 'coldest place not known is to be measured',
      job: place(charger({ absorptionV: 14.3, compensation: 'fixed', compensationMv: 3 }), null, 28),
      on: onCharger,
      verdict: open,
    },
  ],
  'charger.current': [
    {
      says: 'under the recommended current suits',
      job: charger({ ratedA: 80 }),
      on: onCharger,
      verdict: good,
    },
    {
      says: 'over the largest does not, where no other is given: 0.5C would be more',
      job: withValues(charger({ ratedA: 30 }), {
        'candidate/recommendedChargeA': null,
        'candidate/largestChargeA': 25,
      }),
      on: onCharger,
      verdict: bad,
      shows: ['25 A'],
    },
    {
      says: 'over it but under the largest suits once changed',
      job: charger({ ratedA: 90 }),
      on: onCharger,
      verdict: changed,
    },
    {
      says: 'over the largest, fixed, does not suit',
      job: charger({ ratedA: 110 }),
      on: onCharger,
      verdict: bad,
    },
    {
      says: 'over the largest, adjustable, suits once limited',
      job: charger({ ratedA: 110, currentLimit: 'adjustable' }),
      on: onCharger,
      verdict: changed,
      remedy: 'charger.limit-current',
    },
    {
      says: 'between the two suits where the shop holds to the largest',
      job: charger({ ratedA: 90 }),
      on: onCharger,
      verdict: good,
      rules: { chargeRateSchool: 'largest' },
    },
    {
      says: 'not known matters only near the limit',
      job: withValues(charger({ ratedA: null }), {
        'candidate/recommendedChargeA': 40,
        'candidate/largestChargeA': 50,
      }),
      on: onCharger,
      verdict: open,
    },
    {
      says: 'not known does not matter when every plausible one is allowed',
      job: charger({ ratedA: null }),
      on: onCharger,
      verdict: good,
    },
    {
      says: 'over half of C, with no figure of the maker: measure first',
      job: withValues(charger({ ratedA: 55 }), {
        'candidate/recommendedChargeA': null,
        'candidate/largestChargeA': null,
        'candidate/ahEach': 100,
      }),
      on: onCharger,
      verdict: open,
    },
  ],
  'alternator.voltage': [
    {
      says: 'inside the window suits',
      job: alternator(straightJob({ kind: 'solenoid' }), { regulatorV: 14.4 }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'too high and fixed does not suit',
      job: alternator(straightJob({ kind: 'solenoid' }), { regulatorV: 14.9 }),
      on: onLink,
      verdict: bad,
      remedy: 'dcdc.add',
    },
    {
      says: 'too high and external suits once set',
      job: alternator(straightJob({ kind: 'solenoid' }), { regulatorV: 14.9, regulator: 'external' }),
      on: onLink,
      verdict: changed,
      remedy: 'alternator.set-regulator',
    },
    {
      says: 'low, topped up by the charger, suits once accepted',
      job: alternator(straightJob({ kind: 'solenoid' }), { regulatorV: 13.8 }),
      on: onLink,
      verdict: changed,
      remedy: 'charger.top-up',
    },
    {
      says: 'of a regulator that lowers it when warm is judged warm: 14.2 − 0.38 V does not balance',
      job: alternator(straightJob({ kind: 'solenoid' }), { regulator: 'compensated', regulatorV: 14.2 }),
      on: onLink,
      verdict: changed,
      shows: ['0.38 V when warm'],
    },
    {
      says: 'far too low does not suit',
      job: alternator(straightJob({ kind: 'solenoid' }), { regulatorV: 13.1 }),
      on: onLink,
      verdict: bad,
    },
    {
      says: 'low by the isolator alone suits with a low-loss one',
      job: alternator(straightJob({ kind: 'diode', dropV: 0.7 }), { regulatorV: 14.4 }),
      on: onLink,
      verdict: changed,
      remedy: 'link.low-loss-isolator',
    },
    {
      says: 'not known is to be measured',
      job: alternator(straightJob({ kind: 'solenoid' }), { regulatorV: null }),
      on: onLink,
      verdict: open,
    },
  ],
  'alternator.acceptance': [
    {
      says: 'a big alternator with little vehicle draw still gives more than all day at cruise',
      job: straightJob({ kind: 'solenoid' }),
      on: onLink,
      verdict: changed,
      remedy: 'dcdc.add',
      shows: ['cruise'],
    },
    {
      says: 'is held by the regulator under that school',
      job: straightJob({ kind: 'solenoid' }),
      on: onLink,
      verdict: changed,
      rules: { alternatorSchool: 'regulator' },
      remedy: 'alternator.limit-current',
    },
    {
      says: 'with a current limit fitted suits',
      job: alternator(straightJob({ kind: 'solenoid' }), { limitA: 50 }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'held by a thin, long cable suits',
      job: withMeasured(
        straightJob({ kind: 'solenoid' }),
        'conductors',
        { lengthM: 8, areaMm2: 10, fuseA: 60 },
        { of: onLink },
      ),
      on: onLink,
      verdict: good,
    },
    {
      says: 'that passes the largest charge current is held to it',
      job: withValues(alternator(straightJob({ kind: 'solenoid' }), { limitA: 60 }), {
        'candidate/largestChargeA': 30,
        'candidate/recommendedChargeA': 25,
      }),
      on: onLink,
      verdict: changed,
      shows: ['30 A'],
    },
    {
      says: 'regulator voltage not known is to be measured when it decides',
      job: alternator(straightJob({ kind: 'diode', dropV: 0.7 }), { regulatorV: null }),
      on: onLink,
      verdict: open,
    },
  ],
  'alternator.computer-controlled': [
    {
      says: 'with peaks over the window does not suit',
      job: alternator(straightJob({ kind: 'solenoid' }), {
        regulator: 'computer',
        lowestV: 12.4,
        highestV: 15.1,
      }),
      on: onLink,
      verdict: bad,
      shows: ['15.1 V'],
    },
    {
      says: 'with long dips does not suit',
      job: alternator(straightJob({ kind: 'solenoid' }), {
        regulator: 'computer',
        lowestV: 12.4,
        highestV: 14.5,
      }),
      on: onLink,
      verdict: bad,
      shows: ['14 %'],
    },
    {
      says: 'steady inside the window suits',
      job: alternator(straightJob({ kind: 'solenoid' }), {
        regulator: 'computer',
        lowestV: 14.2,
        highestV: 14.5,
      }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'uses the tally of a drive where there is one',
      job: alternator(straightJob({ kind: 'solenoid' }), {
        regulator: 'computer',
        lowestV: 12.6,
        highestV: 14.5,
        driveTally: [
          { minutes: 45, volts: 14.4 },
          { minutes: 15, volts: 12.6 },
        ],
      }),
      on: onLink,
      verdict: good,
      shows: ['75 %'],
    },
    {
      says: 'highest not known is to be measured',
      job: alternator(straightJob({ kind: 'solenoid' }), {
        regulator: 'computer',
        lowestV: 14.2,
        highestV: null,
      }),
      on: onLink,
      verdict: open,
    },
  ],
  'link.nominal': [
    { says: 'of one voltage suits', job: straightJob({ kind: 'vsr' }), on: onLink, verdict: good },
    {
      says: 'a relay between a 12 V engine and a 24 V bank never suits',
      job: withValues(straightJob({ kind: 'vsr' }), {
        'candidate/nominalV': '24',
        'houseBank/nominalV': '24',
      }),
      on: onLink,
      verdict: bad,
      shows: ['12 V', '24 V'],
      remedy: 'dcdc.add',
    },
    {
      says: 'of a 24 V machine on a 12 V bank does not suit',
      job: alternator(straightJob({ kind: 'solenoid' }), { nominalV: '24', regulatorV: 28.4 }),
      on: onLink,
      verdict: bad,
      remedy: 'dcdc.add',
    },
    {
      says: 'a bank whose own voltage is not known',
      job: withValues(straightJob({ kind: 'vsr' }), { 'candidate/nominalV': null }),
      on: onLink,
      verdict: good,
    },
  ],
  'link.vsr-never-opens': [
    {
      says: 'a relay that opens below where lithium rests does not suit',
      job: straightJob({ closesV: 13.3, opensV: 12.8 }),
      on: onLink,
      verdict: bad,
      remedy: 'dcdc.add',
      shows: ['13.5 V', '12.8 V', 'Ah a day'],
    },
    {
      says: 'one that opens above it suits',
      job: straightJob({ closesV: 13.9, opensV: 13.6 }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'opening voltage not known does not matter: every usual one is under where lithium rests',
      job: straightJob({ closesV: 13.9, opensV: null }),
      on: onLink,
      verdict: bad,
    },
    {
      says: 'kind of link not known is to be looked at',
      job: straightJob({ kind: null, opensV: 12.8 }),
      on: onLink,
      verdict: open,
    },
  ],
  'link.vsr-never-closes': [
    {
      says: 'closes when the alternator passes its voltage',
      job: straightJob({ closesV: 13.3, opensV: 12.8 }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'never closes when the alternator stays under it',
      job: alternator(straightJob({ closesV: 13.7, opensV: 13.2 }), { regulatorV: 13.6 }),
      on: onLink,
      verdict: bad,
      shows: ['never closes'],
    },
    {
      says: 'chatters when lithium pulls the bus under its opening voltage',
      job: alternator(straightJob({ closesV: 13.6, opensV: 13.4 }), { ratedA: 55 }),
      on: onLink,
      verdict: bad,
      shows: ['chatters'],
    },
    {
      says: 'regulator voltage not known is to be measured',
      job: alternator(straightJob({ closesV: 13.9, opensV: 12.8 }), { regulatorV: null }),
      on: onLink,
      verdict: open,
    },
  ],
  'link.diode': [
    {
      says: 'a drop out of the window suits with a low-loss isolator',
      job: alternator(straightJob({ kind: 'diode', dropV: 0.7 }), { regulatorV: 14.4 }),
      on: onLink,
      verdict: changed,
      remedy: 'link.low-loss-isolator',
      shows: ['13.65 V'],
    },
    {
      says: 'a drop on a low regulator does not suit even then',
      job: alternator(straightJob({ kind: 'diode', dropV: 0.7 }), { regulatorV: 14 }),
      on: onLink,
      verdict: bad,
      remedy: 'dcdc.add',
    },
    {
      says: 'a small drop suits',
      job: alternator(straightJob({ kind: 'diode', dropV: 0.1 }), { regulatorV: 14.5 }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'drop not known is to be measured',
      job: alternator(straightJob({ kind: 'diode', dropV: null }), { regulatorV: 14.5 }),
      on: onLink,
      verdict: open,
    },
  ],
  'dcdc.output': [
    { says: 'within battery and alternator suits', job: link({ ratedA: 30 }), on: onLink, verdict: good },
    {
      says: 'over the battery’s recommendation suits once limited',
      job: link({ ratedA: 90, currentLimit: 'adjustable' }),
      on: onLink,
      verdict: changed,
      remedy: 'charger.limit-current',
    },
    {
      says: 'above the alternator’s all-day current suits once smaller',
      job: link({ ratedA: 60 }),
      on: onLink,
      verdict: changed,
      shows: ['54 A'],
      remedy: 'charger.replace',
    },
    {
      says: 'from an alternator that gives next to nothing does not: no unit is so small',
      job: alternator(link({ ratedA: 30 }), { ratedA: 40, vehicleDrawA: 20 }),
      on: onLink,
      verdict: bad,
      remedy: 'link.unjoined',
    },
    {
      says: 'that draws no more than the case tolerates at idle and cruise suits at any rise',
      job: alternator(link({ ratedA: 30 }), { riseK: null, ratedA: 160 }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'whose alternator’s rise is not known is to be measured where it decides',
      job: alternator(link({ ratedA: 40 }), { riseK: null }),
      on: onLink,
      verdict: open,
    },
    {
      says: 'on an alternator with nothing to spare does not suit',
      job: alternator(link({}), { ratedA: 45, vehicleDrawA: 24 }),
      on: onLink,
      verdict: bad,
    },
    {
      says: 'counts the dips of a computer-controlled alternator: 14.4 × 45 ÷ (0.9 × 12) = 60 A',
      job: alternator(link({ ratedA: 45 }), { regulator: 'computer', lowestV: 12.3, highestV: 14.9 }),
      on: onLink,
      verdict: changed,
      shows: ['60 A', '54 A'],
    },
    {
      says: 'vehicle draw not known is to be measured',
      job: alternator(link({ ratedA: 40 }), { vehicleDrawA: null }),
      on: onLink,
      verdict: open,
    },
  ],
  'dcdc.signal': [
    {
      says: 'a wire always suits',
      job: alternator(link({ signal: 'wire' }), { regulator: 'computer' }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'voltage suits a steady alternator',
      job: link({ signal: 'voltage' }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'voltage on a computer-controlled alternator needs a wire',
      job: alternator(link({ signal: 'voltage' }), { regulator: 'computer' }),
      on: onLink,
      verdict: changed,
      remedy: 'dcdc.signal-wire',
    },
    {
      says: 'voltage with a charger on the starting battery needs a wire',
      job: withValues(link({ signal: 'voltage' }), { 'startingBatteries/starting-1/fedByCharger': 'yes' }),
      on: onLink,
      verdict: changed,
    },
    {
      says: 'voltage needs a wire under the school that always runs one',
      job: link({ signal: 'voltage' }),
      on: onLink,
      verdict: changed,
      rules: { signalSchool: 'wire' },
    },
    {
      says: 'voltage suits beside a trickle charger under the school that trusts it',
      job: withValues(link({ signal: 'voltage' }), { 'startingBatteries/starting-1/fedByCharger': 'yes' }),
      on: onLink,
      verdict: good,
      rules: { signalSchool: 'voltage' },
    },
    {
      says: 'voltage with a mains charger feeding both batteries needs a wire',
      job: withValues(link({ signal: 'voltage' }), { 'chargers/charger-1/feeds': 'both' }),
      on: onLink,
      verdict: changed,
    },
    {
      says: 'not known is to be looked at where it decides',
      job: alternator(link({ signal: null }), { regulator: 'computer' }),
      on: onLink,
      verdict: open,
    },
    {
      says: 'not known does not matter where either would do',
      job: link({ signal: null }),
      on: onLink,
      verdict: good,
    },
  ],
  'dcdc.voltages': [
    { says: '12 to 12 V suits', job: link({}), on: onLink, verdict: good },
    {
      says: '24 to 12 V suits a 24 V chassis with a 12 V house',
      job: alternator(link({ inputV: '24' }), { nominalV: '24', regulatorV: 28.4 }),
      on: onLink,
      verdict: good,
      shows: ['24 → 12 V'],
    },
    {
      says: '12 to 12 V does not suit a 24 V chassis',
      job: alternator(link({}), { nominalV: '24', regulatorV: 28.4 }),
      on: onLink,
      verdict: bad,
      remedy: 'dcdc.right-voltages',
    },
    {
      says: 'a common negative where they are kept apart suits once isolated',
      job: withValues(link({ isolation: 'common' }), { 'use/negatives': 'separate' }),
      on: onLink,
      verdict: changed,
      remedy: 'dcdc.isolated',
    },
    {
      says: 'an isolated one suits there',
      job: withValues(link({ isolation: 'isolated' }), { 'use/negatives': 'separate' }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'nominal voltage of the alternator not known is to be read',
      job: alternator(link({}), { nominalV: null }),
      on: onLink,
      verdict: open,
    },
    {
      says: 'link not known is to be looked at when a DC-DC would be wrong',
      job: alternator(link({ kind: null }), { nominalV: '24', regulatorV: 28.4 }),
      on: onLink,
      verdict: open,
    },
  ],
  'cold.charge-cut': [
    ...coldCases,
    { says: 'warmer than the limit suits', job: place(goodJob(), 2), on: onCharger, verdict: good },
    { says: 'at the limit suits', job: place(goodJob(), 0), on: onCharger, verdict: good },
    {
      says: 'colder, with a BMS cut, suits once warmed, and counts the hours',
      job: place(goodJob(), -18),
      on: onCharger,
      verdict: changed,
      remedy: 'cold.heater',
      shows: ['8 h', '18 °C under'],
    },
    {
      says: 'colder, without a BMS cut, does not suit',
      job: withValues(place(goodJob(), -18), { 'candidate/coldCut': 'no' }),
      on: onCharger,
      verdict: bad,
    },
    {
      says: 'colder, with a BMS cut and a heater, suits and names the waiting sources',
      job: withValues(place(goodJob(), -18), { 'candidate/heater': 'yes' }),
      on: onCharger,
      verdict: good,
      shows: ['refuses charge', 'until the heater'],
    },
    {
      says: 'a heater without a BMS cut does not hold the charge off',
      job: withValues(place(goodJob(), -15), { 'candidate/heater': 'yes', 'candidate/coldCut': 'no' }),
      on: onCharger,
      verdict: bad,
      shows: ['Neither the heater nor the BMS stops the charge'],
    },
    {
      says: 'the maker’s own lower limit counts',
      job: withValues(place(goodJob(), -8), { 'candidate/coldLimitC': -10 }),
      on: onCharger,
      verdict: good,
    },
    { says: 'coldest not known is to be asked', job: place(goodJob(), null), on: onCharger, verdict: open },
    {
      says: 'of the alternator’s path is judged too',
      job: place(goodJob(), -5),
      on: onLink,
      verdict: changed,
      shows: ['3 h'],
    },
  ],
  'cold.rate': [
    { says: 'above 10 °C the full rate is allowed', job: place(goodJob(), 10), on: onCharger, verdict: good },
    {
      says: 'from 5 to 10 °C two tenths of C: 40 A',
      job: place(goodJob(), 6),
      on: onCharger,
      verdict: good,
      shows: ['40 A'],
    },
    {
      says: 'from 0 to 5 °C a tenth of C: 20 A',
      job: place(goodJob(), 3),
      on: onCharger,
      verdict: changed,
      shows: ['20 A'],
    },
    {
      says: 'where it is less than any unit gives, another battery is asked for',
      job: withValues(place(goodJob(), 3), { 'candidate/ahEach': 40, 'candidate/largestChargeA': 40 }),
      on: onCharger,
      verdict: changed,
      remedy: 'cold.warmer-place',
      shows: ['4 A'],
    },
    {
      says: 'the maker’s band counts',
      job: withValues(place(goodJob(), 3), { 'candidate/band0To5C': 0.2 }),
      on: onCharger,
      verdict: good,
    },
    {
      says: 'from 45 to 55 °C three tenths',
      job: withValues(place(goodJob(), 12, 50), {
        'candidate/ahEach': 60,
        'candidate/recommendedChargeA': 30,
        'candidate/largestChargeA': 40,
      }),
      on: onCharger,
      verdict: changed,
      shows: ['18 A'],
    },
    {
      says: 'above 55 °C none by the shop, even where the maker allows it',
      job: withValues(place(goodJob(), 12, 60), { 'candidate/chargeHotC': 65 }),
      on: onCharger,
      verdict: bad,
    },
    {
      says: 'above the maker’s limit is another check: here it counts up to that',
      job: withValues(place(goodJob(), 12, 60), { 'candidate/chargeHotC': 45 }),
      on: onCharger,
      verdict: good,
      shows: ['45 °C'],
    },
    { says: 'coldest not known is to be asked', job: place(goodJob(), null), on: onCharger, verdict: open },
  ],
  'battery.chemistry': [
    { says: 'LFP suits', job: goodJob(), on: 'candidate', verdict: good },
    { says: 'NMC does not', job: candidate({ chemistry: 'nmc' }), on: 'candidate', verdict: bad },
    {
      says: 'not known is to be looked up',
      job: candidate({ chemistry: null }),
      on: 'candidate',
      verdict: open,
    },
  ],
  'battery.discharge': [
    { says: 'within the BMS suits', job: inverter(1000), on: 'candidate', verdict: good, shows: ['12.15 V'] },
    {
      says: 'over it, where more may stand in parallel, suits once doubled',
      job: inverter(2000),
      on: 'candidate',
      verdict: changed,
      remedy: 'battery.more-parallel',
      shows: ['192 A'],
    },
    {
      says: 'over it, alone, does not suit',
      job: inverter(2000, { 'candidate/mostParallel': 1 }),
      on: 'candidate',
      verdict: bad,
      remedy: 'inverter.limit',
    },
    {
      says: 'two in parallel count nine tenths each',
      job: inverter(2400, { 'candidate/parallel': 2 }),
      on: 'candidate',
      verdict: good,
      shows: ['270 A', '90 %'],
    },
    {
      says: 'BMS current not known is to be looked up',
      job: inverter(1500, { 'candidate/continuousA': null }),
      on: 'candidate',
      verdict: open,
    },
  ],
  'battery.voltage-devices': [
    {
      says: 'a trip too low on the curve is useless',
      job: device(11.6),
      on: onDevice,
      verdict: changed,
      remedy: 'device.replace-by-monitor',
      shows: ['3 %'],
    },
    {
      says: 'a disconnect at 12.0 V comes before a BMS that cuts at 10.0 V',
      job: disconnect(12),
      on: onDevice,
      verdict: changed,
      shows: ['4 %', 'before the BMS cuts out'],
    },
    {
      says: 'and behind one that cuts at 12.4 V',
      job: withValues(disconnect(12), { 'candidate/bmsUnderV': 12.4 }),
      on: onDevice,
      verdict: changed,
      shows: ['the BMS cuts out before it does'],
    },
    { says: 'a trip on the useful part suits', job: device(12.85, 0), on: onDevice, verdict: good },
    {
      says: 'a trip too high cuts with energy to spare',
      job: device(13.25),
      on: onDevice,
      verdict: changed,
      shows: ['energy to spare'],
    },
    {
      says: 'not known: useless over most of its range, so it is to be read',
      job: device(null, 0),
      on: onDevice,
      verdict: changed,
    },
  ],
}

describe.each(Object.entries(cases))('%s', (id, list) => {
  it.each(list)('$says', ({ job, on, verdict, rules, shows = [], remedy, absent }) => {
    if (absent) return expect(applies(job, id)).toBe(false)
    const result = resultOf(job, id, on, rules)
    expect({ verdict: result.verdict, said: result.summary }).toMatchObject({ verdict })
    for (const words of shows) expect(`${result.formula} ${result.summary}`).toContain(words)
    if (remedy) expect(result.remedies[0]?.id).toBe(remedy)
  })
})

/** The checks of a job, with runs for the cases that are about them; without runs otherwise, to save time. */
const withRunsOf = (id: string, job: JobDocument, rules?: RuleOverrides) =>
  checksOf(job, rules, { quick: !allChecks.some((c) => c.id === id && c.takesTime) })

/** Checks that never check a part: they ask for values that contradict each other. */
const asksOnly = new Set(['battery.data'])

describe('every check', () => {
  it.each(allChecks.map((c) => c.id))(
    '%s is tested suiting, not suiting, and with an input unknown',
    (id) => {
      const met = new Set((cases[id] ?? []).map((c) => c.verdict))
      expect(met).toContain(good)
      expect(met.has(bad) || met.has(changed) || asksOnly.has(id)).toBe(true)
      expect(cases[id]!.some((c) => c.verdict === open || /not known/.test(c.says))).toBe(true)
    },
  )

  it('has an id of its own', () => expect(new Set(allChecks.map((c) => c.id)).size).toBe(allChecks.length))

  it('suits on the good job, which therefore suits', () => {
    expect(assessed(goodJob())).toMatchObject({
      verdict: good,
      headline: 'Suits',
      changes: [],
      measureNext: [],
    })
  })

  it('says where its limit comes from, why it matters, and shows no broken number', long, () => {
    for (const [id, list] of Object.entries(cases)) {
      for (const { job, rules } of list) {
        for (const c of withRunsOf(id, job, rules)) {
          expect(c.limit.text).not.toBe('')
          expect(c.why).toMatch(/\.$/)
          expect(`${c.summary} ${c.formula} ${c.compared.map((side) => side.value).join(' ')}`).not.toMatch(
            /NaN|Infinity|undefined|null/,
          )
        }
      }
    }
  })

  it('gives a remedy with everything that is not as it should be', long, () => {
    for (const [id, list] of Object.entries(cases)) {
      for (const { job, rules } of list) {
        for (const c of withRunsOf(id, job, rules))
          if (c.verdict === bad || c.verdict === changed)
            expect({ id: c.id, remedies: c.remedies.length }).not.toEqual({ id: c.id, remedies: 0 })
      }
    }
  })
})

describe('checks that have nothing to check stay away', () => {
  it.each([
    ['link.diode', goodJob()],
    ['link.vsr-never-opens', goodJob()],
    ['dcdc.output', straightJob({ kind: 'solenoid' })],
    ['alternator.voltage', goodJob()],
    ['battery.voltage-devices', goodJob()],
  ] as const)('%s', (id, job) => {
    expect(applies(job, id)).toBe(false)
  })

  it('a charger on the starting battery alone has no lane', () => {
    expect(assessed(charger({ feeds: 'starting' })).lanes.map((l) => l.id)).toEqual([onLink])
  })
})

describe('titles', () => {
  /** What a check finds is a sentence of its own: a title is a thing, or a question. */
  const findings =
    /\b(opens|closes|holds|takes|gives|carries|fits|stands|brings|costs|does|cuts|suits|reaches|fills|keeps|must|is|are|has)\b/i
  it('are things or questions, never a possible finding', () => {
    expect(
      allChecks.filter(({ title }) => findings.test(title) && !title.endsWith('?')).map(({ title }) => title),
    ).toEqual([])
  })
})
