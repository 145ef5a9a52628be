import { choice, quantity, volts, yesNo, type Fields, withDecisions } from '#core/job/field'
import { chargeStages, madeFor } from './stages'

export const solar = withDecisions(
  {
    panelW: quantity('Power of one panel', 'W', 5, [1, 1000], [80, 200], 'Label on its back.'),
    series: quantity('Panels in series', '', 1, [1, 20], [1, 3], 'Count along one string.', { otherwise: 1 }),
    parallel: quantity('Strings in parallel', '', 1, [1, 20], [1, 4], 'Count the strings.', { otherwise: 1 }),
    stringFuses: yesNo('A fuse in each string', 'Look in the combiner box, or at the plugs of each string.', {
      detail: true,
    }),
    openCircuitV: quantity('Open-circuit voltage, Voc', 'V', 0.5, [1, 150], [19, 42], 'Label on its back.'),
    maxPowerV: quantity('Voltage at most power, Vmp', 'V', 0.5, [1, 130], [16, 36], 'Label on its back.', {
      detail: true,
      otherwise: ({ value }) => value('openCircuitV') * 0.82,
    }),
    shortCircuitA: quantity(
      'Short-circuit current, Isc',
      'A',
      0.1,
      [0.1, 50],
      [4, 12],
      'Label on its back.',
      {
        detail: true,
        otherwise: ({ value }) => (value('panelW') / (value('openCircuitV') * 0.82)) * 1.07,
      },
    ),
    maxPowerA: quantity('Current at most power, Imp', 'A', 0.1, [0.1, 50], [4, 12], 'Label on its back.', {
      detail: true,
      otherwise: ({ value }) => value('panelW') / (value('openCircuitV') * 0.82),
    }),
    vocPerC: quantity(
      'Voltage rise in the cold',
      '%/°C',
      0.01,
      [0, 1],
      [0.25, 0.35],
      'Label: coefficient of Voc, without the minus sign.',
      { otherwise: 0.3, detail: true },
    ),
    tilt: quantity('Tilt from flat', '°', 5, [0, 90], [0, 60], 'Angle app on the glass.', {
      otherwise: 0,
      detail: true,
    }),
    shading: quantity(
      'Lost to shade',
      '%',
      5,
      [0, 100],
      [0, 40],
      'Look for mast, rack, trees; a guess by thirds will do.',
      { otherwise: 20 },
    ),
    through: choice(
      'Charging through',
      { own: 'A controller of its own', dcdc: 'The solar input of a DC-DC' },
      'Follow its cable.',
      { otherwise: 'own', detail: true },
    ),
    nominalV: madeFor,
    controller: choice(
      'Controller',
      { mppt: 'MPPT', pwm: 'PWM' },
      'Label; MPPT units are heavier and have a higher PV voltage.',
    ),
    maxPvV: quantity(
      'Largest PV voltage of the controller',
      'V',
      5,
      [5, 600],
      [30, 150],
      'Label or maker’s sheet.',
    ),
    ...chargeStages,
  } satisfies Fields,
  ['series', 'parallel', 'through'],
)

export const sources = {
  kind: choice(
    'Kind',
    { wind: 'Wind generator', hydro: 'Towed or water generator', shaft: 'Shaft generator' },
    'Look for it.',
  ),
  largestA: quantity(
    'Largest current',
    'A',
    1,
    [0.5, 500],
    [5, 40],
    'Maker’s sheet, or clamp meter on its best day.',
  ),
  regulatorV: volts(
    'Regulator voltage',
    [13.8, 14.8],
    'Meter on its output once the current has begun to fall.',
  ),
  onDisconnect: choice(
    'When the battery disconnects',
    {
      diversion: 'A diversion load takes over',
      brake: 'A brake or short circuit stops it',
      none: 'Nothing: it runs free',
    },
    'Follow its wires; maker’s sheet.',
  ),
  hours: quantity('Hours of output a day', 'h', 1, [0, 24], [1, 10], 'Ask for an ordinary day.'),
  averageShare: quantity(
    'Average of that largest current',
    '%',
    5,
    [1, 100],
    [20, 60],
    'Ask, or a shunt monitor’s count.',
    { otherwise: 30, detail: true },
  ),
} satisfies Fields
