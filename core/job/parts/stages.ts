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
  { same: 'Same as the system it feeds', ...systemVoltages },
  'Label on the unit.',
  { how: 'label', otherwise: 'same', detail: true },
)

/** Stages that a mains charger, a DC-DC charger and a solar controller have in common. */
export const chargeStages = {
  ratedA: quantity('Rated current', 'A', 1, [0, 1000], [10, 60], 'Label on the unit.', { how: 'label' }),
  currentLimit: choice(
    'Current limit',
    { fixed: 'Fixed', adjustable: 'Adjustable' },
    'Menu, switch or maker’s sheet.',
    { how: 'maker', otherwise: 'fixed' },
  ),
  profile: choice(
    'Charge profile',
    {
      lithium: 'Lithium profile, set',
      selectable: 'Has a lithium profile, not set',
      adjustable: 'Adjustable voltages',
      automatic: 'Detects the battery automatically',
      fixed: 'Fixed, for lead-acid',
    },
    'Look for a switch, a menu or the maker’s sheet. The label on the lid proves nothing.',
    { how: 'maker' },
  ),
  absorptionV: volts(
    'Absorption voltage',
    [13.8, 15],
    'Measure at the battery posts once the current starts to fall.',
    { onlyMeasuredWhen: detectsByItself },
  ),
  absorptionH: quantity(
    'Absorption time',
    'h',
    0.5,
    [0, 48],
    [1, 6],
    'Maker’s sheet, or time it from when the voltage stops rising.',
    { how: 'maker', otherwise: 2 },
  ),
  floatMode: choice(
    'After absorption',
    { off: 'Stops', on: 'Floats' },
    'Measure at the posts an hour after the current fell.',
    { minutes: 60 },
  ),
  floatV: volts('Float voltage', [13.2, 14], 'Measure at the posts an hour after the current fell.', {
    when: [{ field: 'floatMode', is: ['on'] }],
    onlyMeasuredWhen: detectsByItself,
    minutes: 60,
  }),
  equaliseStage: choice(
    'Equalise, desulfation or pulse stage',
    {
      none: 'No such stage',
      off: 'Present, switched off',
      switchable: 'On, can be switched off',
      fixed: 'On, cannot be switched off',
    },
    'Maker’s sheet: equalise, recondition, desulfation, pulse.',
    { how: 'maker' },
  ),
  equaliseV: volts('Voltage of that stage', [14.4, 16.2], 'Maker’s sheet. Do not run it to find out.', {
    how: 'maker',
    when: [{ field: 'equaliseStage', is: ['off', 'switchable', 'fixed'] }],
  }),
  equaliseLeastV: optional(
    'Lowest setting of that stage',
    'V',
    0.1,
    [5, 80],
    [14, 15],
    'Maker’s sheet. Leave empty if it cannot be set.',
    { how: 'maker', when: [{ field: 'equaliseStage', is: ['switchable', 'fixed'] }], detail: true },
  ),
  compensation: choice(
    'Temperature compensation',
    {
      none: 'No compensation',
      off: 'Present, switched off',
      switchable: 'On, can be switched off',
      fixed: 'On, cannot be switched off',
    },
    'Look for a sensor on the battery, or read the maker’s sheet.',
    { how: 'maker' },
  ),
  compensationMv: quantity(
    'Compensation per cell',
    'mV/°C',
    0.5,
    [0, 10],
    [2, 5],
    'Maker’s sheet, in millivolts per degree and cell, without the minus sign.',
    { how: 'maker', when: [{ field: 'compensation', is: ['off', 'switchable', 'fixed'] }] },
  ),
  absorptionLeastV: volts('Lowest absorption setting', [13.6, 14.2], 'Maker’s sheet.', {
    how: 'maker',
    when: [adjustable],
    detail: true,
  }),
  absorptionMostV: volts('Highest absorption setting', [14.6, 15.5], 'Maker’s sheet.', {
    how: 'maker',
    when: [adjustable],
    detail: true,
  }),
  floatLeastV: volts('Lowest float setting', [12.8, 13.4], 'Maker’s sheet.', {
    how: 'maker',
    when: [adjustable],
    detail: true,
  }),
  floatMostV: volts('Highest float setting', [13.6, 14.4], 'Maker’s sheet.', {
    how: 'maker',
    when: [adjustable],
    detail: true,
  }),
} satisfies Fields
