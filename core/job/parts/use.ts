import { choice, optional, quantity, yesNo, type Fields } from '#core/job/field'

export const use = {
  daysAway: quantity(
    'Days away from mains',
    'days',
    1,
    [0, 365],
    [1, 7],
    'Ask for the longest ordinary stay.',
  ),
  dailyAh: quantity(
    'Energy used a day, counted',
    'Ah',
    5,
    [0, 5000],
    [20, 150],
    'Shunt monitor over an ordinary day. Empty: added up from the loads.',
  ),
  dcAtOnceA: quantity(
    'DC loads on at once',
    'A',
    1,
    [0, 3000],
    [5, 60],
    'Clamp meter at the house battery with everything on that runs together; leave the inverter off. Empty: added up from the loads.',
  ),
  monitor: choice(
    'How charge is watched',
    {
      shunt: 'Shunt monitor that counts all current',
      partial: 'Phone link to one of several batteries',
      bms: 'Phone link to the only battery',
      voltage: 'Voltage only',
      none: 'Nothing',
    },
    'Look for a shunt in the main negative.',
  ),
  shuntA: quantity(
    'Shunt made for',
    'A',
    50,
    [10, 5000],
    [100, 500],
    'Print on the shunt: the current beside its millivolts.',
    { when: [{ field: 'monitor', is: ['shunt'] }], how: 'label', minutes: 5 },
  ),
  warns: yesNo('Warning before the battery cuts out', 'Alarm of a monitor, buzzer on the battery’s signal.', {
    otherwise: 'no',
  }),
  mixed: choice(
    'What happens to the old battery?',
    {
      replaced: 'It is replaced',
      hybrid: 'It stays, in parallel with the lithium',
      relay: 'It stays, behind a relay',
      dcdc: 'It stays, with a DC-DC between',
      series: 'It stays, in series with the lithium',
    },
    'What the customer wishes.',
    { otherwise: 'replaced' },
  ),
  betweenA: quantity(
    'DC-DC to the old battery',
    'A',
    5,
    [1, 200],
    [10, 40],
    'Its label: what it gives the old battery.',
    { when: [{ field: 'mixed', is: ['dcdc'] }], how: 'label', otherwise: 20 },
  ),
  chargeStop: yesNo(
    'Charge stop and discharge stop fitted on the lithium side',
    'Two relays or a contactor worked by the battery or a monitor.',
    { when: [{ field: 'mixed', is: ['hybrid', 'relay'] }], otherwise: 'no' },
  ),
  isolators: yesNo('Separate switches for lead and lithium', 'A switch for each.', {
    when: [{ field: 'mixed', is: ['hybrid', 'relay'] }],
    otherwise: 'no',
  }),
  negatives: choice(
    'Battery negatives',
    { common: 'House and starting side joined', separate: 'Kept apart' },
    'Meter on ohms between the two negative posts, everything switched off.',
    { otherwise: 'common', detail: true },
  ),
  standsWeeks: quantity(
    'Longest it stands without its engine running',
    'weeks',
    1,
    [0, 104],
    [0, 12],
    'Ask. Empty: as long as it is laid up.',
    { otherwise: ({ value }) => value('layupWeeks'), detail: true },
  ),
  layupWeeks: quantity(
    'Laid up for',
    'weeks',
    1,
    [0, 104],
    [0, 26],
    'Ask how long it stands unused in winter.',
    { otherwise: 0 },
  ),
} satisfies Fields

/** Where something stands. */
export const places = {
  cabin: 'Cabin',
  locker: 'Outside locker',
  engine: 'Engine space',
  bilge: 'Bilge',
} as const

export const place = {
  where: choice('House battery place', places, 'Where the new battery will stand.'),
  widthMm: quantity(
    'Space, width',
    'mm',
    10,
    [20, 5000],
    [250, 700],
    'Tape between whatever is in the way, cables and lid included.',
  ),
  depthMm: quantity('Space, depth', 'mm', 10, [20, 5000], [180, 500], 'Tape between whatever is in the way.'),
  heightMm: quantity('Space, height', 'mm', 10, [20, 5000], [200, 400], 'Tape from the floor to the lid.'),
  loadLimitKg: optional(
    'Tray or floor carries',
    'kg',
    5,
    [1, 5000],
    [30, 150],
    'Maker’s sheet of the tray or body. Empty: what it carries now.',
    { detail: true },
  ),
  coldestC: quantity(
    'Coldest there',
    '°C',
    1,
    [-50, 40],
    [-15, 10],
    'Ask where it spends the winter; a logging thermometer tells best.',
  ),
  hottestC: quantity(
    'Hottest there',
    '°C',
    1,
    [0, 90],
    [25, 50],
    'Thermometer beside the battery after an hour’s run on a warm day.',
  ),
  ventilation: choice(
    'Ventilation',
    { open: 'Open to a room', vented: 'Vented locker', closed: 'Closed box' },
    'Look for vents high and low.',
    { otherwise: 'vented', detail: true },
  ),
  ingress: choice(
    'Water and dust',
    { dry: 'Dry and clean', damp: 'Splash or dust', wet: 'May stand in water' },
    'Look for tide marks and dust.',
    { otherwise: 'dry' },
  ),
} satisfies Fields
