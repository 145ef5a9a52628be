import {
  choice,
  optional,
  quantity,
  systemVoltages,
  volts,
  type Condition,
  type Fields,
} from '#core/job/field'

/** Which profile such a charger takes is seen only on the day: its label does not decide it. */
const detectsByItself: Condition = { field: 'profile', is: ['automatic'] }
const adjustable: Condition = { field: 'profile', is: ['adjustable'] }

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
