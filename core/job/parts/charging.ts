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

/** Which profile such a charger takes is seen only on the day: its label does not decide it. */
const detectsByItself: Condition = { field: 'profile', is: ['automatic'] }
const adjustable: Condition = { field: 'profile', is: ['adjustable'] }
const onMains: Condition = { field: 'feeds', is: ['house', 'both'] }

/** The nominal voltage on a unit's label. */
export const madeFor = choice(
  'Made for',
  { same: 'The voltage of what it feeds', ...systemVoltages },
  'Label on the unit.',
  { otherwise: 'same', detail: true },
)

/** Stages that a mains charger, a DC-DC charger and a solar controller have in common. */
export const chargeStages = {
  ratedA: quantity('Rated current', 'A', 1, [0, 1000], [10, 60], 'Label on the unit.'),
  currentLimit: choice(
    'Current limit',
    { fixed: 'Fixed', adjustable: 'Can be set lower' },
    'Menu, switch or maker’s sheet.',
    { otherwise: 'fixed', detail: true },
  ),
  profile: choice(
    'Charge profile',
    {
      lithium: 'Lithium profile, set now',
      selectable: 'Has a lithium profile, not set',
      adjustable: 'Voltages can be set one by one',
      automatic: 'Detects the battery by itself',
      fixed: 'Fixed, for lead',
    },
    'Look for a switch, a menu or the maker’s sheet. The word on the lid proves nothing.',
  ),
  absorptionV: volts(
    'Absorption voltage',
    [13.8, 15],
    'Meter on the battery posts once the current has begun to fall.',
    { onlyMeasuredWhen: detectsByItself },
  ),
  absorptionH: quantity(
    'Absorption time',
    'h',
    0.5,
    [0, 48],
    [1, 6],
    'Maker’s sheet, or watch the clock from the moment the voltage stops rising.',
    { otherwise: 2, detail: true },
  ),
  floatMode: choice(
    'After absorption',
    { off: 'Stops', on: 'Floats' },
    'Meter on the posts an hour after the current fell away.',
    { minutes: 60 },
  ),
  floatV: volts('Float voltage', [13.2, 14], 'Meter on the posts an hour after the current fell away.', {
    when: [{ field: 'floatMode', is: ['on'] }],
    onlyMeasuredWhen: detectsByItself,
    minutes: 60,
  }),
  equaliseStage: choice(
    'Equalise, desulfation or pulse stage',
    {
      none: 'Has none',
      off: 'Has one, switched off',
      switchable: 'On, can be switched off',
      fixed: 'On, cannot be switched off',
    },
    'Maker’s sheet: equalise, recondition, desulfation, pulse.',
  ),
  equaliseV: volts('Voltage of that stage', [14.4, 16.2], 'Maker’s sheet; do not run it to find out.', {
    when: [{ field: 'equaliseStage', is: ['off', 'switchable', 'fixed'] }],
  }),
  equaliseLeastV: optional(
    'That stage can be set down to',
    'V',
    0.1,
    [5, 80],
    [14, 15],
    'Maker’s sheet. Empty: it cannot be set.',
    { when: [{ field: 'equaliseStage', is: ['switchable', 'fixed'] }], detail: true },
  ),
  compensation: choice(
    'Temperature compensation',
    {
      none: 'Has none',
      off: 'Has it, switched off',
      switchable: 'On, can be switched off',
      fixed: 'On, cannot be switched off',
    },
    'A sensor on the battery or a note in the maker’s sheet.',
  ),
  compensationMv: quantity(
    'Compensation for each lead cell',
    'mV/°C',
    0.5,
    [0, 10],
    [2, 5],
    'Maker’s sheet, as millivolts a degree a cell, without the minus sign.',
    { when: [{ field: 'compensation', is: ['off', 'switchable', 'fixed'] }] },
  ),
  absorptionLeastV: volts('Absorption can be set from', [13.6, 14.2], 'Maker’s sheet.', {
    when: [adjustable],
    detail: true,
  }),
  absorptionMostV: volts('Absorption can be set up to', [14.6, 15.5], 'Maker’s sheet.', {
    when: [adjustable],
    detail: true,
  }),
  floatLeastV: volts('Float can be set from', [12.8, 13.4], 'Maker’s sheet.', {
    when: [adjustable],
    detail: true,
  }),
  floatMostV: volts('Float can be set up to', [13.6, 14.4], 'Maker’s sheet.', {
    when: [adjustable],
    detail: true,
  }),
} satisfies Fields

export const chargers = {
  kind: choice(
    'Kind',
    { charger: 'Mains charger', converter: 'Converter with fuse block', combi: 'Inverter-charger' },
    'Label; an inverter-charger has an AC output.',
    { otherwise: 'charger' },
  ),
  ...chargeStages,
  nominalV: madeFor,
  feeds: choice(
    'Feeds',
    { house: 'House bank', starting: 'Starting battery', both: 'Both' },
    'Follow its output leads.',
    { otherwise: 'house' },
  ),
  hours: quantity('Hours plugged in a day', 'h', 1, [0, 24], [0, 12], 'Ask for an ordinary day.'),
  outputs: quantity('Outputs', '', 1, [1, 8], [1, 3], 'Count the positive terminals.', {
    otherwise: 1,
    detail: true,
  }),
  holdsFuseBlock: yesNo('Also holds the DC fuse block', 'Look for a row of blade fuses in its front.', {
    otherwise: 'no',
    detail: true,
  }),
  supplyV: quantity(
    'AC supply',
    'V',
    10,
    [90, 480],
    [110, 240],
    'Label at the inlet; leave the mains side to licensed hands.',
    { otherwise: 230, detail: true, when: [onMains] },
  ),
  supplyLimitA: optional(
    'AC supply limit',
    'A',
    1,
    [1, 10_000],
    [5, 32],
    'Breaker of the shore or site supply. Empty: none.',
    { detail: true, when: [onMains] },
  ),
  efficiency: quantity('Efficiency', '%', 1, [40, 100], [75, 95], 'Maker’s sheet.', {
    otherwise: 'chargerEfficiency',
    detail: true,
  }),
  powerFactor: quantity(
    'Power factor',
    '×',
    0.05,
    [0.3, 1],
    [0.6, 1],
    'Maker’s sheet; a corrected unit has 0.95 or more.',
    { otherwise: 'chargerPowerFactor', detail: true },
  ),
} satisfies Fields

const dcdc: Condition = { field: 'kind', is: ['dcdc'] }
const relay = { when: [{ field: 'kind', is: ['vsr'] }] } as const
const duty = { when: [{ field: 'kind', is: ['duty'] }] } as const

export const links = {
  kind: choice(
    'What joins the house bank to it',
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
    'Closes at',
    [13, 13.7],
    'Meter on the starting side while the engine warms; listen for the click.',
    relay,
  ),
  opensV: volts(
    'Opens at',
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
    'Also closes on the voltage of the house side',
    'Maker’s sheet, or charge the house bank with the engine off and listen.',
    relay,
  ),
  opensAboveA: quantity('Opens above', 'A', 5, [1, 1000], [30, 150], 'Maker’s sheet or its setting.', duty),
  offTimeS: quantity('Stays open for', 's', 5, [0, 3600], [10, 120], 'Maker’s sheet, or watch the clock.', {
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
    'Starts on',
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
    'Stands in',
    { cool: 'A cool, dry place', engine: 'The engine space' },
    'Where it is, or would be.',
    { when: [dcdc], otherwise: 'cool', detail: true },
  ),
  engineSpace: yesNo('May stand in an engine space', 'Maker’s sheet.', {
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
    'Gives a little back to the starting battery',
    'Maker’s sheet: trickle or maintain the starting battery from the house side.',
    { when: [dcdc], otherwise: 'no', detail: true },
  ),
  ...onlyWhen(dcdc, chargeStages),
} satisfies Fields

export const solar = {
  panelW: quantity('Power of one panel', 'W', 5, [1, 1000], [80, 200], 'Label on its back.'),
  series: quantity('Panels in series', '', 1, [1, 20], [1, 3], 'Count along one string.', { otherwise: 1 }),
  parallel: quantity('Strings in parallel', '', 1, [1, 20], [1, 4], 'Count the strings.', { otherwise: 1 }),
  openCircuitV: quantity('Open-circuit voltage, Voc', 'V', 0.5, [1, 150], [19, 42], 'Label on its back.'),
  maxPowerV: quantity('Voltage at most power, Vmp', 'V', 0.5, [1, 130], [16, 36], 'Label on its back.', {
    detail: true,
    otherwise: ({ value }) => value('openCircuitV') * 0.82,
  }),
  shortCircuitA: quantity('Short-circuit current, Isc', 'A', 0.1, [0.1, 50], [4, 12], 'Label on its back.', {
    detail: true,
    otherwise: ({ value }) => (value('panelW') / (value('openCircuitV') * 0.82)) * 1.07,
  }),
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
    'Charges through',
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
} satisfies Fields

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
  hours: quantity('Hours it gives a day', 'h', 1, [0, 24], [1, 10], 'Ask for an ordinary day.'),
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

export const generators = {
  watts: quantity('Power', 'W', 100, [100, 50_000], [800, 3500], 'Label, continuous.'),
  hours: quantity('Hours run a day', 'h', 0.5, [0, 24], [0.5, 4], 'Ask for an ordinary day.', {
    otherwise: 0,
  }),
} satisfies Fields
