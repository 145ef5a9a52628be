import { number, school } from '../rule'

export const alternator = {
  alternatorAllDay: school(
    'Continuous output of an alternator',
    {
      heat: [
        'By the heat of its case',
        'One model and readings of its case temperature give the limit at every speed',
      ],
      share: ['By a share of its rating', 'A figure from the shop’s experience, the same for every machine'],
    },
    'heat',
    'Machines differ by half; a case temperature reading settles it',
  ),
  alternatorIdleShare: number(
    'Alternator all day at idle, share of rated',
    '%',
    50,
    [20, 100],
    'There is little cooling air at idle. Used when the shop limits by a share',
  ),
  alternatorCruiseShare: number(
    'Alternator all day at cruise, share of rated',
    '%',
    65,
    [20, 100],
    'There is more cooling air at speed. Used when the shop limits by a share',
  ),
  hotOutputShare: number(
    'Hot output, share of rated',
    '%',
    85,
    [50, 100],
    'A warm machine gives less than its label',
  ),
  spareLeastA: number(
    'Smallest spare current worth wiring for',
    'A',
    10,
    [1, 100],
    'Below this, a day’s drive gives less than a fridge uses',
  ),
  windowTimeShare: number(
    'Drive time inside the window that is enough',
    '%',
    50,
    [10, 100],
    'You cannot rely on a charge if less than half the drive is usable',
  ),
  lowLossDropV: number(
    'Drop of a low-loss isolator',
    'V',
    0.1,
    [0.02, 0.4],
    'Typical of the field-effect kind',
  ),
  leadFloatC: number(
    'Current a full starting battery takes from a lithium bank',
    '×',
    0.001,
    [0, 0.01],
    'About 0.1 A for each 100 Ah at 13.2 V',
  ),
  cableMohm: number(
    'Resistance of a cable not entered yet, there and back',
    'mΩ',
    5,
    [0, 100],
    'About 3 m of 25 mm² with its return. Entering the cable replaces it',
  ),
  cableC: number(
    'Temperature of cables for voltage drop',
    '°C',
    20,
    [-20, 90],
    'The table is for 20 °C. A loaded cable in a warm place has about 15 % more resistance',
  ),
  dcdcEfficiency: number('DC-DC efficiency', '%', 90, [70, 99], 'Typical under load'),
} as const
