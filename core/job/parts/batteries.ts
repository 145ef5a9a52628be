import { typicalLeadKgPerAh } from '#core/physics/lead'
import {
  choice,
  leadKinds,
  optional,
  quantity,
  rows,
  systemVoltages,
  volts,
  yesNo,
  type Fields,
} from '#core/job/field'

const own = { when: [{ field: 'present', is: ['yes'] }] } as const

export const houseBank = {
  chemistry: choice('Kind', leadKinds, 'Label, caps, weight.', { how: 'label' }),
  sameModel: yesNo('Same maker and model as the new battery', 'Compare the labels.', {
    when: [{ field: 'chemistry', is: ['lithium'] }],
  }),
  nominalV: choice('House system', systemVoltages, 'Add up the batteries in series.', {
    how: 'label',
    otherwise: '12',
  }),
  series: quantity('In series', '', 1, [1, 12], [1, 2], 'Count along one string.', { otherwise: 1 }),
  parallel: quantity('In parallel', '', 1, [1, 20], [1, 4], 'Count the strings.', { otherwise: 1 }),
  ahEach: quantity('Capacity of each (20 h)', 'Ah', 5, [1, 3000], [60, 220], 'Label.', { how: 'label' }),
  testedAh: optional(
    'Tested capacity of each',
    'Ah',
    5,
    [1, 3000],
    [40, 200],
    'Discharge test to 10.5 V. Empty: reduced for age.',
    { detail: true },
  ),
  ageYears: quantity('Age', 'years', 1, [0, 40], [1, 8], 'Date code, or ask.', { how: 'customer' }),
  weightEachKg: quantity('Weight of each', 'kg', 1, [0.5, 500], [15, 60], 'Label or bathroom scales.', {
    how: 'label',
    otherwise: ({ value }) => typicalLeadKgPerAh * value('ahEach'),
  }),
  restedV: volts(
    'Resting voltage of the weakest',
    [11.8, 12.8],
    'Measure at the posts after four hours of rest.',
  ),
  restedEachV: rows(
    'Resting voltage of each',
    [{ name: 'volts', label: 'Resting', unit: 'V', limits: [0, 80] }],
    '',
    'Measure at the posts after four hours of rest, links off. Add a row for each battery.',
    { detail: true },
  ),
  layout: choice(
    'Parallel connection',
    {
      single: 'One battery',
      ladder: 'In a row, both leads at the same end',
      diagonal: 'In a row, leads at opposite ends',
      busbar: 'Equal leads to bus bars',
    },
    'Trace both main leads.',
    { otherwise: 'single', detail: true },
  ),
} satisfies Fields

export const startingBattery = {
  present: choice(
    'Starting battery',
    {
      yes: 'Separate starting battery',
      no: 'None: the house bank starts the engine',
      noEngine: 'No engine here',
      other: 'None here: another battery starts the engine',
    },
    'Follow the starter cable back.',
  ),
  nominalV: choice('Nominal voltage', systemVoltages, 'Label. Empty: same as its alternator.', {
    how: 'label',
    ...own,
    detail: true,
  }),
  chemistry: choice('Kind', leadKinds, 'Label, caps, weight.', { ...own, how: 'label' }),
  ah: quantity('Capacity', 'Ah', 5, [1, 1000], [40, 120], 'Label.', { ...own, how: 'label' }),
  cca: quantity('Cold cranking current (CCA)', 'A', 10, [10, 3000], [300, 900], 'Label: CCA.', {
    how: 'label',
    when: [{ field: 'present', is: ['yes', 'no'] }],
    otherwise: ({ value }) => 7 * value('ah'),
  }),
  engineNeedA: quantity(
    'Cranking current the engine needs',
    'A',
    10,
    [5, 3000],
    [80, 500],
    'Clamp the starter lead with peak hold on a cold morning, or read the engine maker’s sheet.',
    { when: [{ field: 'present', is: ['yes', 'no'] }], otherwise: ({ value }) => 0.5 * value('cca') },
  ),
  ageYears: quantity('Age', 'years', 1, [0, 40], [1, 8], 'Date code, or ask.', {
    how: 'customer',
    ...own,
    otherwise: 3,
    detail: true,
  }),
  health: quantity(
    'Health by tester',
    '%',
    5,
    [0, 100],
    [40, 100],
    'Use a conductance tester set to its CCA.',
    {
      ...own,
      otherwise: 80,
      detail: true,
    },
  ),
  standbyA: quantity(
    'Vehicle draw with the key off',
    'A',
    0.01,
    [0, 20],
    [0.02, 0.3],
    'Clamp the negative lead half an hour after locking.',
  ),
  restedV: volts('Resting voltage', [12, 12.8], 'Measure at the posts after four hours of rest.', own),
  fedByCharger: yesNo(
    'Also charged by mains or solar',
    'Look for a second output lead or a trickle charger.',
    { otherwise: 'no' },
  ),
  jumpSwitch: yesNo(
    'Switch or relay to the house bank',
    'Look for a rocker marked boost, emergency or parallel.',
    own,
  ),
  monitored: yesNo('Monitored by the vehicle', 'Look for a small box with a plug on the negative post.', {
    when: [{ field: 'present', is: ['yes', 'no'] }],
    otherwise: 'no',
    detail: true,
  }),
} satisfies Fields
