import {
  choice,
  optional,
  onlyWhen,
  quantity,
  systemVoltages,
  volts,
  yesNo,
  type Condition,
  type Fields,
} from '#core/job/field'
import { chargeStages } from './stages'

const dcdc: Condition = { field: 'kind', is: ['dcdc'] }
const relay = { when: [{ field: 'kind', is: ['vsr'] }] } as const
const duty = { when: [{ field: 'kind', is: ['duty'] }] } as const

export const links = {
  kind: choice(
    'Link to the house bank',
    {
      direct: 'Nothing: straight to the house bank',
      vsr: 'Voltage-sensed relay',
      solenoid: 'Ignition solenoid',
      diode: 'Diode isolator',
      switch: 'Battery switch, off / 1 / 2 / both',
      duty: 'Duty-cycling charge relay',
      dcdc: 'DC-DC charger',
      none: 'Not joined: it does not charge the house bank',
    },
    'Follow the alternator’s cable to the house bank.',
  ),
  closesV: volts(
    'Closing voltage',
    [13, 13.7],
    'Meter on the starting side while the engine warms; listen for the click.',
    relay,
  ),
  opensV: volts(
    'Opening voltage',
    [12.6, 13.2],
    'Meter on the starting side after the engine stops; listen for the click.',
    relay,
  ),
  delayS: quantity(
    'Delay before it closes',
    's',
    5,
    [0, 600],
    [0, 120],
    'Watch the clock from the engine’s start to the click.',
    { ...relay, otherwise: 0, detail: true },
  ),
  bothWay: yesNo(
    'Closing on the house voltage too',
    'Maker’s sheet, or charge the house bank with the engine off and listen.',
    relay,
  ),
  opensAboveA: quantity(
    'Opening current',
    'A',
    5,
    [1, 1000],
    [30, 150],
    'Maker’s sheet or its setting.',
    duty,
  ),
  offTimeS: quantity('Time open', 's', 5, [0, 3600], [10, 120], 'Maker’s sheet, or watch the clock.', {
    ...duty,
    otherwise: 30,
    detail: true,
  }),
  dropV: volts(
    'Drop of the isolator',
    [0.1, 0.9],
    'Meter from its input stud to the house output while charging.',
    { when: [{ field: 'kind', is: ['diode'] }] },
  ),
  relayA: optional(
    'Rating of relay, isolator or switch',
    'A',
    10,
    [1, 10_000],
    [50, 250],
    'Label. Empty: not known to limit.',
    {
      when: [{ field: 'kind', is: ['vsr', 'solenoid', 'diode', 'switch', 'duty'] }],
      detail: true,
    },
  ),
  inputV: choice('Input made for', systemVoltages, 'Label.', { when: [dcdc] }),
  outputV: choice('Output made for', systemVoltages, 'Label.', { when: [dcdc] }),
  isolation: choice(
    'Input and output negatives',
    { common: 'Joined inside', isolated: 'Isolated' },
    'Label or maker’s sheet.',
    { when: [dcdc], otherwise: 'common', detail: true },
  ),
  signal: choice(
    'Running signal',
    { wire: 'Ignition or alternator wire', voltage: 'Voltage it detects' },
    'Look for a thin wire to the signal terminal.',
    { when: [dcdc] },
  ),
  lowestInputV: volts('Lowest input it runs at', [10.5, 12.5], 'Maker’s sheet.', {
    when: [dcdc],
    otherwise: 11.5,
    detail: true,
  }),
  stands: choice(
    'Place of the unit',
    { cool: 'A cool, dry place', engine: 'The engine space' },
    'Where it is, or would be.',
    { when: [dcdc], otherwise: 'cool', detail: true },
  ),
  engineSpace: yesNo('Allowed in an engine space', 'Maker’s sheet.', {
    when: [dcdc],
    otherwise: 'no',
    detail: true,
  }),
  solarMostV: quantity(
    'Solar input, largest voltage',
    'V',
    1,
    [1, 300],
    [20, 60],
    'Maker’s sheet, where it has a solar input.',
    { when: [dcdc], otherwise: 25, detail: true },
  ),
  solarMostW: quantity(
    'Solar input, largest power',
    'W',
    10,
    [1, 5000],
    [200, 600],
    'Maker’s sheet, where it has a solar input.',
    { when: [dcdc], otherwise: ({ value }) => value('ratedA') * 14, detail: true },
  ),
  backFeed: yesNo(
    'Trickle back to the starting battery',
    'Maker’s sheet: trickle or maintain the starting battery from the house side.',
    { when: [dcdc], otherwise: 'no', detail: true },
  ),
  ...onlyWhen(dcdc, chargeStages),
} satisfies Fields
