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
      direct: 'Nothing: connected directly to the house bank',
      vsr: 'Voltage-sensed relay',
      solenoid: 'Ignition solenoid',
      diode: 'Diode isolator',
      switch: 'Battery switch, off / 1 / 2 / both',
      duty: 'Duty-cycling charge relay',
      dcdc: 'DC-DC charger',
      none: 'None: it does not charge the house bank',
    },
    'Follow the alternator’s cable to the house bank.',
  ),
  closesV: volts(
    'Closing voltage',
    [13, 13.7],
    'Measure on the starting side while the engine warms up. Listen for the click.',
    relay,
  ),
  opensV: volts(
    'Opening voltage',
    [12.6, 13.2],
    'Measure on the starting side after the engine stops. Listen for the click.',
    relay,
  ),
  delayS: quantity(
    'Delay before it closes',
    's',
    5,
    [0, 600],
    [0, 120],
    'Time from the engine start to the click.',
    { ...relay, otherwise: 0, detail: true },
  ),
  bothWay: yesNo(
    'Also closes on house voltage',
    'Maker’s sheet, or charge the house bank with the engine off and listen for the click.',
    { ...relay, how: 'maker' },
  ),
  opensAboveA: quantity('Opening current', 'A', 5, [1, 1000], [30, 150], 'Maker’s sheet or its setting.', {
    ...duty,
    how: 'maker',
  }),
  offTimeS: quantity('Time open', 's', 5, [0, 3600], [10, 120], 'Maker’s sheet, or time it.', {
    how: 'maker',
    ...duty,
    otherwise: 30,
    detail: true,
  }),
  dropV: volts(
    'Voltage drop of the isolator',
    [0.1, 0.9],
    'Measure from its input stud to its house output while charging.',
    { when: [{ field: 'kind', is: ['diode'] }] },
  ),
  relayA: optional(
    'Rating of relay, isolator or switch',
    'A',
    10,
    [1, 10_000],
    [50, 250],
    'Label. Empty: no limit assumed.',
    {
      how: 'label',
      when: [{ field: 'kind', is: ['vsr', 'solenoid', 'diode', 'switch', 'duty'] }],
      detail: true,
    },
  ),
  inputV: choice('Input voltage', systemVoltages, 'Label.', { how: 'label', when: [dcdc] }),
  outputV: choice('Output voltage', systemVoltages, 'Label.', { how: 'label', when: [dcdc] }),
  isolation: choice(
    'Input and output negatives',
    { common: 'Joined inside', isolated: 'Isolated' },
    'Label or maker’s sheet.',
    { how: 'label', when: [dcdc], otherwise: 'common', detail: true },
  ),
  signal: choice(
    'Running signal',
    { wire: 'Ignition or alternator wire', voltage: 'Voltage detection' },
    'Look for a thin wire to the signal terminal.',
    { when: [dcdc] },
  ),
  lowestInputV: volts('Lowest running input', [10.5, 12.5], 'Maker’s sheet.', {
    how: 'maker',
    when: [dcdc],
    otherwise: 11.5,
    detail: true,
  }),
  stands: choice(
    'Place of the unit',
    { cool: 'A cool, dry place', engine: 'The engine space' },
    'Look where it is, or will be.',
    { when: [dcdc], otherwise: 'cool', detail: true },
  ),
  engineSpace: yesNo('Allowed in an engine space', 'Maker’s sheet.', {
    how: 'maker',
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
    'Maker’s sheet, if it has a solar input.',
    { how: 'maker', when: [dcdc], otherwise: 25, detail: true },
  ),
  solarMostW: quantity(
    'Solar input, largest power',
    'W',
    10,
    [1, 5000],
    [200, 600],
    'Maker’s sheet, if it has a solar input.',
    { how: 'maker', when: [dcdc], otherwise: ({ value }) => value('ratedA') * 14, detail: true },
  ),
  backFeed: yesNo(
    'Trickle back to the starting battery',
    'Maker’s sheet: whether it trickle-charges the starting battery from the house side.',
    { how: 'maker', when: [dcdc], otherwise: 'no', detail: true },
  ),
  ...onlyWhen(dcdc, chargeStages),
} satisfies Fields
