import { number, school } from '../rule'

export const alternator = {
  alternatorAllDay: school(
    'What an alternator gives all day',
    {
      heat: [
        'By the heat of its case',
        'One model and the readings of its case say what it bears, at every speed',
      ],
      share: ['By a share of its rating', 'A figure the shop has learnt to trust, whatever the machine'],
    },
    'heat',
    'A machine differs from the next by half; a reading of its case settles it',
  ),
  alternatorIdleShare: number(
    'Alternator all day at idle, share of rated',
    '%',
    50,
    [20, 100],
    'Little cooling air at idle; used where the shop goes by a share',
  ),
  alternatorCruiseShare: number(
    'Alternator all day at cruise, share of rated',
    '%',
    65,
    [20, 100],
    'More cooling air at speed; used where the shop goes by a share',
  ),
  hotOutputShare: number(
    'Hot output, share of rated',
    '%',
    85,
    [50, 100],
    'A warm machine gives less than its label',
  ),
  spareLeastA: number(
    'Least current to spare that is worth wiring for',
    'A',
    10,
    [1, 100],
    'Under it a day’s drive brings less than a fridge uses',
  ),
  windowTimeShare: number(
    'Drive time inside the window that is enough',
    '%',
    50,
    [10, 100],
    'With less than half the drive usable a charge cannot be counted on',
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
    'Cable run not entered yet, there and back',
    'mΩ',
    5,
    [0, 100],
    'About 3 m of 25 mm² with its return; entering the run replaces it',
  ),
  cableC: number(
    'Temperature of cables for voltage drop',
    '°C',
    20,
    [-20, 90],
    'At 20 °C the table holds as it is; a loaded cable in a warm place has some 15 % more resistance',
  ),
  dcdcEfficiency: number('DC-DC efficiency', '%', 90, [70, 99], 'Typical under load'),
} as const
