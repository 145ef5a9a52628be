import { joinText } from '#core/units/format'
import { choice, optional, quantity, yesNo, type Fields, withDecisions } from '#core/job/field'

export const use = withDecisions(
  {
    daysAway: quantity(
      'Days away from mains',
      'days',
      1,
      [0, 365],
      [1, 7],
      'Ask about the longest normal stay.',
      { how: 'customer' },
    ),
    dailyAh: quantity(
      'Energy used a day, measured',
      'Ah',
      5,
      [0, 5000],
      [20, 150],
      'Read a shunt monitor over a normal day. Empty: added up from the loads.',
    ),
    dcAtOnceA: quantity(
      'DC loads on at once',
      'A',
      1,
      [0, 3000],
      [5, 60],
      joinText(
        'Clamp the house battery lead with everything on that runs together, ',
        'inverter off. Empty: added up from the loads.',
      ),
    ),
    monitor: choice(
      'Charge monitoring',
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
      'Rating of the shunt',
      'A',
      50,
      [10, 5000],
      [100, 500],
      'Read the print on the shunt: the current next to its millivolts.',
      { when: [{ field: 'monitor', is: ['shunt'] }], how: 'label', minutes: 5 },
    ),
    warns: yesNo(
      'Warning before the battery cuts out',
      'Look for a monitor alarm or a buzzer on the battery’s signal.',
      {
        otherwise: 'no',
      },
    ),
    mixed: choice(
      'What happens to the old battery?',
      {
        replaced: 'It is replaced',
        hybrid: 'It stays, in parallel with the lithium',
        relay: 'It stays, behind a relay',
        dcdc: 'It stays, with a DC-DC between',
        series: 'It stays, in series with the lithium',
      },
      'Ask what the customer wants.',
      { otherwise: 'replaced' },
    ),
    betweenA: quantity(
      'DC-DC to the old battery',
      'A',
      5,
      [1, 200],
      [10, 40],
      'Read its label: the current it gives the old battery.',
      { when: [{ field: 'mixed', is: ['dcdc'] }], how: 'label', otherwise: 20 },
    ),
    chargeStop: yesNo(
      'Charge stop and discharge stop fitted on the lithium side',
      'Look for two relays or a contactor that the battery or a monitor controls.',
      { when: [{ field: 'mixed', is: ['hybrid', 'relay'] }], otherwise: 'no' },
    ),
    isolators: yesNo('Separate switches for lead and lithium', 'Look for a switch for each.', {
      when: [{ field: 'mixed', is: ['hybrid', 'relay'] }],
      otherwise: 'no',
    }),
    negatives: choice(
      'Battery negatives',
      { common: 'House and starting side joined', separate: 'Kept apart' },
      'Measure ohms between the two negative posts with everything switched off.',
      { otherwise: 'common' },
    ),
    standsWeeks: quantity(
      'Longest time without the engine running',
      'weeks',
      1,
      [0, 104],
      [0, 12],
      'Ask. Empty: as long as the lay-up.',
      { how: 'customer', otherwise: ({ value }) => value('layupWeeks'), detail: true },
    ),
    layupWeeks: quantity(
      'Laid up for',
      'weeks',
      1,
      [0, 104],
      [0, 26],
      'Ask how long it is unused in winter.',
      { how: 'customer', otherwise: 0 },
    ),
  } satisfies Fields,
  ['mixed', 'betweenA', 'chargeStop', 'isolators', 'negatives', 'layupWeeks'],
)

/** Where something stands. */
export const places = {
  cabin: 'Cabin',
  locker: 'Outside locker',
  engine: 'Engine space',
  bilge: 'Bilge',
} as const

export const place = {
  where: choice('House battery place', places, 'Choose where the new battery will be.'),
  widthMm: quantity(
    'Space, width',
    'mm',
    10,
    [20, 5000],
    [250, 700],
    'Measure the free space, cables and lid included.',
  ),
  depthMm: quantity('Space, depth', 'mm', 10, [20, 5000], [180, 500], 'Measure the free space.'),
  heightMm: quantity('Space, height', 'mm', 10, [20, 5000], [200, 400], 'Measure from the floor to the lid.'),
  loadLimitKg: optional(
    'Tray or floor carries',
    'kg',
    5,
    [1, 5000],
    [30, 150],
    'Maker’s sheet of the tray or body. Empty: the weight it carries now.',
    { how: 'maker', detail: true },
  ),
  coldestC: quantity(
    'Coldest there',
    '°C',
    1,
    [-50, 40],
    [-15, 10],
    'Ask where it spends the winter, or leave a logging thermometer there.',
    { how: 'customer' },
  ),
  outsideC: quantity(
    'Coldest outside',
    '°C',
    1,
    [-50, 40],
    [-20, 5],
    'The coldest night where it is used. Panels are outside even if the battery is not.',
    { otherwise: 'outsideColdC', detail: true },
  ),
  hottestC: quantity(
    'Hottest there',
    '°C',
    1,
    [0, 90],
    [25, 50],
    'Put a thermometer next to the battery after an hour of running on a warm day.',
  ),
  ventilation: choice(
    'Ventilation',
    { open: 'Open to a room', vented: 'Vented locker', closed: 'Closed box' },
    'Look for vents high and low.',
    { otherwise: 'vented' },
  ),
  ingress: choice(
    'Water and dust',
    { dry: 'Dry and clean', damp: 'Splash or dust', wet: 'May stand in water' },
    'Look for tide marks and dust.',
    { otherwise: 'dry' },
  ),
} satisfies Fields
