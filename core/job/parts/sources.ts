import { choice, quantity, volts, yesNo, type Fields, withDecisions } from '#core/job/field'
import { chargeStages, madeFor } from './stages'

export const solar = withDecisions(
  {
    panelW: quantity('Power of one panel', 'W', 5, [1, 1000], [80, 200], 'Label on its back.', {
      how: 'label',
    }),
    series: quantity('Panels in series', '', 1, [1, 20], [1, 3], 'Count along one string.', { otherwise: 1 }),
    parallel: quantity('Strings in parallel', '', 1, [1, 20], [1, 4], 'Count the strings.', { otherwise: 1 }),
    stringFuses: yesNo('A fuse in each string', 'Look in the combiner box, or at the plugs of each string.', {
      detail: true,
    }),
    openCircuitV: quantity('Open-circuit voltage, Voc', 'V', 0.5, [1, 150], [19, 42], 'Label on its back.', {
      how: 'label',
    }),
    maxPowerV: quantity('Voltage at maximum power, Vmp', 'V', 0.5, [1, 130], [16, 36], 'Label on its back.', {
      how: 'label',
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
        how: 'label',
        detail: true,
        otherwise: ({ value }) => (value('panelW') / (value('openCircuitV') * 0.82)) * 1.07,
      },
    ),
    maxPowerA: quantity('Current at maximum power, Imp', 'A', 0.1, [0.1, 50], [4, 12], 'Label on its back.', {
      how: 'label',
      detail: true,
      otherwise: ({ value }) => value('panelW') / (value('openCircuitV') * 0.82),
    }),
    vocPerC: quantity(
      'Voltage rise in the cold',
      '%/°C',
      0.01,
      [0, 1],
      [0.25, 0.35],
      'Label: temperature coefficient of Voc, without the minus sign.',
      { how: 'label', otherwise: 0.3, detail: true },
    ),
    tilt: quantity('Tilt from flat', '°', 5, [0, 90], [0, 60], 'Put an angle app on the glass.', {
      otherwise: 0,
      detail: true,
    }),
    shading: quantity(
      'Lost to shade',
      '%',
      5,
      [0, 100],
      [0, 40],
      'Look for a mast, a rack or trees. An estimate in thirds is enough.',
      { otherwise: 20 },
    ),
    through: choice(
      'Charge controller',
      { own: 'Separate controller', dcdc: 'Solar input of a DC-DC' },
      'Follow its cable.',
      { otherwise: 'own', detail: true },
    ),
    nominalV: madeFor,
    controller: choice(
      'Controller type',
      { mppt: 'MPPT', pwm: 'PWM' },
      'Label. MPPT units are heavier and have a higher PV voltage.',
      { how: 'label' },
    ),
    maxPvV: quantity(
      'Largest PV voltage of the controller',
      'V',
      5,
      [5, 600],
      [30, 150],
      'Label or maker’s sheet.',
      { how: 'label' },
    ),
    ...chargeStages,
  } satisfies Fields,
  ['series', 'parallel', 'through'],
)

export const sources = {
  kind: choice(
    'Kind',
    { wind: 'Wind generator', hydro: 'Towed or water generator', shaft: 'Shaft generator' },
    'Look which kind it is.',
  ),
  largestA: quantity(
    'Largest current',
    'A',
    1,
    [0.5, 500],
    [5, 40],
    'Maker’s sheet, or a clamp reading on its best day.',
    { how: 'maker' },
  ),
  regulatorV: volts(
    'Regulator voltage',
    [13.8, 14.8],
    'Measure at its output once the current starts to fall.',
  ),
  onDisconnect: choice(
    'When the battery disconnects',
    {
      diversion: 'A diversion load takes over',
      brake: 'A brake or short circuit stops it',
      none: 'Nothing: it runs unloaded',
    },
    'Follow its wires, or read the maker’s sheet.',
  ),
  hours: quantity('Hours of output a day', 'h', 1, [0, 24], [1, 10], 'Ask about a normal day.', {
    how: 'customer',
  }),
  averageShare: quantity(
    'Average, share of the largest current',
    '%',
    5,
    [1, 100],
    [20, 60],
    'Ask, or read a shunt monitor.',
    { how: 'customer', otherwise: 30, detail: true },
  ),
} satisfies Fields
