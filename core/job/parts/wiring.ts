import { tableAirC } from '#core/physics/conductors'
import { inSentence, joinText } from '#core/units/format'
import { madeFor } from './stages'
import { choice, optional, quantity, rows, volts, yesNo, type Fields, withDecisions } from '#core/job/field'

const posts = {
  house: 'House bank',
  starting: 'Starting battery',
  alternator: 'Alternator',
  link: 'Relay, isolator, switch or DC-DC',
  charger: 'Mains charger',
  solar: 'Solar controller',
  source: 'Other source',
  inverter: 'Inverter',
  busbar: 'Bus bar',
  fuseblock: 'Fuse block',
  plug: 'Tow or trailer plug',
} as const

/** Ratings of insulation. */
export const insulations = {
  60: '60 °C',
  70: '70 °C',
  90: '90 °C',
  105: '105 °C',
  125: '125 °C',
  200: '200 °C',
} as const

/** Families of fuses and breakers with their interrupt ratings, from the reference table of fuses. */
export const fuseFamilies = {
  blade: 'Blade',
  'maxi-blade': 'Large blade',
  'bolt-down-midi': 'Bolt-down, small',
  'bolt-down-mega': 'Bolt-down, large',
  anl: 'Bolt-down strip (ANL)',
  'terminal-block': 'Fuse on the terminal',
  'class-t': 'Class T',
  'thermal-breaker': 'Thermal breaker',
} as const

/** A family of fuses inside a sentence. */
export const familyWords = (family: keyof typeof fuseFamilies): string => inSentence(fuseFamilies[family])

export const conductors = {
  fromPost: choice('From', posts, 'Follow the positive cable.', { otherwise: 'house', detail: true }),
  toPost: choice('To', posts, 'Follow the positive cable.', { otherwise: 'house', detail: true }),
  lengthM: quantity(
    'One-way length',
    'm',
    0.5,
    [0.05, 100],
    [0.5, 12],
    'Lay a cord along the cable and measure it.',
  ),
  areaMm2: quantity(
    'Size',
    'mm²',
    1,
    [0.5, 400],
    [6, 35],
    'Read the print on the sheath, or strip an end and measure the strands.',
    { how: 'label' },
  ),
  material: choice(
    'Metal',
    { copper: 'Copper, bare or tinned', aluminium: 'Aluminium, bare or copper-clad' },
    'Scrape a strand. Silver all the way through is aluminium.',
    { otherwise: 'copper', detail: true },
  ),
  returnBy: choice(
    'Current returns by',
    { cable: 'Cable', chassis: 'Chassis or hull' },
    'Look for a negative cable of the same size.',
    { otherwise: 'cable' },
  ),
  insulationC: choice('Insulation rating', insulations, 'Read the print on the sheath.', {
    how: 'label',
    otherwise: '70',
  }),
  engineSpace: yesNo('Through the engine space', 'Follow the cable.', {
    otherwise: 'no',
    absent: 'yes if one of its ends is there, as at an alternator, otherwise no',
    detail: true,
  }),
  airC: quantity(
    'Hottest air along it',
    '°C',
    1,
    [0, 100],
    [25, 50],
    'Measure at its hottest spot on a warm day with everything running.',
    { otherwise: tableAirC, detail: true },
  ),
  bundled: quantity(
    'Loaded conductors in the bundle',
    '',
    1,
    [1, 24],
    [1, 6],
    'Count the ones that carry current at the same time.',
    { otherwise: 1, detail: true },
  ),
  fuseKind: choice(
    'Fuse type',
    { none: 'No fuse', ...fuseFamilies },
    'Look for a fuse near the battery. Read its shape and print.',
    {
      how: 'label',
    },
  ),
  fuseA: quantity(
    'Fuse or breaker',
    'A',
    5,
    [1, 2000],
    [30, 150],
    'Read the print on the fuse nearest the battery.',
    { how: 'label', when: [{ field: 'fuseKind', is: Object.keys(fuseFamilies) }] },
  ),
  fuseAicA: optional(
    'Interrupt rating of the fuse',
    'A',
    500,
    [100, 200_000],
    [1000, 20_000],
    'Maker’s sheet, at this voltage. Empty: typical for its kind.',
    { how: 'maker', detail: true },
  ),
  farFuseKind: choice(
    'Fuse type at the other end',
    { none: 'None', ...fuseFamilies },
    'Look for a fuse nearest the source. Read its shape and print.',
    { otherwise: 'none', detail: true },
  ),
  farFuseA: optional(
    'Fuse at the other end',
    'A',
    5,
    [1, 10_000],
    [30, 150],
    'Read the print on the fuse nearest the source. Leave empty if none.',
    { how: 'label', detail: true },
  ),
  farFuseAicA: optional(
    'Interrupt rating of the fuse at the other end',
    'A',
    500,
    [100, 200_000],
    [1000, 20_000],
    'Maker’s sheet, at this voltage. Empty: typical for its kind.',
    { how: 'maker', detail: true },
  ),
  connectorA: optional(
    'Plug or connector',
    'A',
    5,
    [1, 10_000],
    [30, 175],
    'Read the rating moulded on the shell. Leave empty if none.',
    { how: 'label' },
  ),
  connectorMostMm2: quantity(
    'Largest conductor the plug takes',
    'mm²',
    1,
    [0.5, 1000],
    [6, 50],
    'Maker’s sheet of the contact. Empty: no limit assumed.',
    { how: 'maker', otherwise: 1000, detail: true },
  ),
} satisfies Fields

export const inverters = withDecisions(
  {
    nominalV: madeFor,
    continuousW: quantity('Continuous power', 'W', 100, [10, 50_000], [300, 3000], 'Label.', {
      how: 'label',
    }),
    surgeW: quantity(
      'Surge power',
      'W',
      100,
      [10, 100_000],
      (at) => {
        const w = at.number('continuousW')
        return w === null ? [300, 6000] : [w, 2 * w]
      },
      'Maker’s sheet.',
      { how: 'maker', otherwise: ({ value }) => 2 * value('continuousW') },
    ),
    surgeS: quantity('Surge duration', 's', 1, [0.01, 1800], [0.5, 10], 'Maker’s sheet.', {
      how: 'maker',
      otherwise: 5,
      detail: true,
    }),
    efficiency: quantity('Efficiency', '%', 1, [40, 100], [80, 95], 'Maker’s sheet, at full load.', {
      how: 'maker',
      otherwise: 'inverterEfficiency',
    }),
    idleW: quantity(
      'Draw when on without load',
      'W',
      1,
      [0, 500],
      [5, 40],
      'Clamp its positive lead with everything unplugged.',
      { otherwise: ({ value }) => 0.01 * value('continuousW') + 3, detail: true },
    ),
    hoursOn: quantity('Hours switched on a day', 'h', 1, [0, 24], [1, 24], 'Ask about a normal day.', {
      how: 'customer',
      otherwise: 0,
      detail: true,
    }),
    cutOffV: volts('Low-voltage cut-off', [10, 11.5], 'Maker’s sheet or its menu.', {
      how: 'maker',
      otherwise: 10.5,
      detail: true,
    }),
    sockets: choice(
      'AC sockets it feeds',
      { own: 'Fed only by the inverter', shared: 'Also fed by shore or a generator' },
      joinText(
        'Switch the inverter off and plug shore in. Check whether its sockets are live. ',
        'Only a licensed person works on the mains side.',
      ),
      { detail: true, minutes: 5 },
    ),
    transferSwitch: choice(
      'Mains transfer',
      { none: 'None', builtIn: 'Built in', separate: 'Separate switch' },
      'Only look. A licensed person works on the mains side.',
      { otherwise: 'none', detail: true },
    ),
  } satisfies Fields,
  ['hoursOn'],
)

export const devices = {
  kind: choice(
    'Kind',
    { gauge: 'Gauge', alarm: 'Alarm', disconnect: 'Low-voltage disconnect', appliance: 'Appliance cut-out' },
    'Find out what it does when the voltage falls.',
    { otherwise: 'alarm' },
  ),
  tripV: volts(
    'Set to',
    [10.5, 12.5],
    'Maker’s sheet, or lower a bench supply until it trips. For a gauge, the voltage it shows as half full.',
    { how: 'maker' },
  ),
} satisfies Fields

export const loads = withDecisions({
  supply: choice(
    'Supply',
    { dc: 'DC', ac: 'AC' },
    'Follow its plug to the battery (DC) or the inverter (AC).',
    {
      otherwise: 'dc',
    },
  ),
  amps: quantity(
    'Draw',
    'A',
    0.5,
    [0, 3000],
    [0.5, 10],
    'Clamp it while it runs, or enter the watts on its label, such as 60 W.',
    { when: [{ field: 'supply', is: ['dc'] }] },
  ),
  watts: quantity('Draw', 'W', 10, [0, 50_000], [50, 1500], 'Label, or a plug-in meter.', {
    how: 'label',
    when: [{ field: 'supply', is: ['ac'] }],
  }),
  hours: quantity('Hours a day', 'h', 0.5, [0, 24], [0.5, 8], 'Ask about a normal day.', { how: 'customer' }),
  period: choice(
    'When',
    {
      even: 'Any time',
      morning: 'Morning, 6 to 12',
      afternoon: 'Afternoon, 12 to 18',
      evening: 'Evening, 18 to 24',
      night: 'Night, 0 to 6',
    },
    'Ask about a normal day.',
    { how: 'customer', otherwise: 'even' },
  ),
  duty: quantity(
    'Share of time on',
    '%',
    5,
    [0, 100],
    [20, 100],
    'For a fridge that switches on and off: minutes on ÷ total minutes.',
    { how: 'customer', otherwise: 100 },
  ),
  surge: quantity(
    'Current when it starts',
    '×',
    0.5,
    [1, 20],
    [1, 6],
    'Clamp meter with peak hold, as a multiple of its running current.',
    { how: 'customer', otherwise: 1, detail: true },
  ),
  together: yesNo('On at the same time as the others', 'Ask about the busiest hour.', {
    how: 'customer',
    otherwise: 'yes',
    detail: true,
  }),
  essential: yesNo('Essential', 'For example bilge pump, radio, brakes or medical equipment.', {
    how: 'customer',
    otherwise: 'no',
  }),
  nominalV: { ...madeFor, when: [{ field: 'supply', is: ['dc'] }] },
} satisfies Fields)

/** Readings of the alternator's case while it is loaded. */
export const temperatureReadings = rows(
  'Temperature readings',
  [
    { name: 'amps', label: 'Current', unit: 'A', limits: [0, 1000] },
    { name: 'rpm', label: 'Alternator speed', unit: 'rpm', limits: [0, 20_000] },
    { name: 'minutes', label: 'After', unit: 'min', limits: [0, 600] },
    { name: 'celsius', label: 'Case', unit: '°C', limits: [-50, 250] },
  ],
  ' / ',
  joinText(
    'Put a contact probe on the case under load. Enter the alternator’s speed, ',
    'not the engine’s. “After” is the time since the load came on.',
  ),
  { detail: true },
)
