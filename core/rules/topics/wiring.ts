import { number, school } from '../rule'

const lost = 'There and back, at the largest current'

export const wiring = {
  cableStock: school(
    'Cable sizes carried',
    {
      every: ['Every usual size', 'The smallest cable that will do'],
      ten: ['2.5, 6, 10, 16, 25, 35, 50, 70, 95 and 120 mm²', 'Fewer reels in the van'],
      six: ['2.5, 6, 16, 35, 70 and 120 mm²', 'One reel for each step'],
    },
    'ten',
    'Proposals take the next size carried',
  ),
  mostCableSizes: number(
    'Cable sizes in one job at most',
    '',
    5,
    [2, 20],
    'Fewer sizes need fewer lugs and dies; the least used size goes up to the next',
  ),
  fuseStock: school(
    'Fuse families carried',
    {
      every: ['Every family', 'The simplest family that will do'],
      three: ['Blade, terminal and class T', 'Fewer holders and spares'],
    },
    'three',
    'Proposals take a family carried; a fuse that stays keeps its own',
  ),
  dropCharging: number('Voltage lost to what charges a battery directly', '%', 3, [0.5, 10], lost),
  dropDcdc: number('Voltage lost to a DC-DC', '%', 5, [0.5, 20], `${lost}; it makes up for what is left`),
  dropOther: number('Voltage lost to other loads', '%', 10, [1, 20], lost),
  dropCranking: number(
    'Voltage lost to a starter motor',
    '%',
    10,
    [1, 30],
    'At the engine’s cranking current',
  ),
  mainShare: number(
    'Main leads carry at least, of what the battery gives for hours',
    '%',
    50,
    [0, 100],
    'More is joined to a bar than was there on the first day',
  ),
  joinWithinV: number(
    'Batteries are joined within a rested voltage of',
    'V',
    0.05,
    [0.01, 0.5],
    'Of a 12 V battery; otherwise the fuller one empties itself into the other',
  ),
  fuseWithinMm: number(
    'A fuse stands within',
    'mm',
    180,
    [20, 2000],
    'What lies between source and fuse burns in a fault; longer only in a sheath of its own',
  ),
  grading: number(
    'Fuse nearer the source against the one behind it',
    '×',
    1.6,
    [1, 4],
    'The smaller goes first and leaves the rest alight',
  ),
  runMinutes: number(
    'Time to lay and land a new run',
    'min',
    12,
    [0, 240],
    'With both its lugs; the steps have the hours for mounting and setting',
  ),
  deviceMinutes: number(
    'Time to mount a fuse, switch or bar',
    'min',
    10,
    [0, 240],
    'On a board, with its cover',
  ),
  unequalShare: number(
    'One battery of a bank carries more than its share by',
    '%',
    5,
    [1, 50],
    'The hardest worked ages first, and its protection opens first',
  ),
} as const
