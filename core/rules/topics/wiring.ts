import { number, school } from '../rule'

const lost = 'There and back, at the largest current'

export const wiring = {
  cableStock: school(
    'Cable sizes carried',
    {
      every: ['Every standard size', 'The smallest cable that is enough'],
      ten: ['2.5, 6, 10, 16, 25, 35, 50, 70, 95 and 120 mm²', 'Fewer reels in the van'],
      six: ['2.5, 6, 16, 35, 70 and 120 mm²', 'One reel for each step'],
    },
    'ten',
    'Proposals use the next size carried',
  ),
  mostCableSizes: number(
    'Cable sizes in one job at most',
    '',
    5,
    [2, 20],
    'Fewer sizes need fewer lugs and dies. The least used size goes up to the next',
  ),
  fuseStock: school(
    'Fuse families carried',
    {
      every: ['Every family', 'The simplest family that is enough'],
      three: ['Blade, terminal and class T', 'Fewer holders and spares'],
    },
    'three',
    'Proposals use carried families. A fuse that stays keeps its family',
  ),
  dropCharging: number('Voltage lost to a source that charges a battery directly', '%', 3, [0.5, 10], lost),
  dropDcdc: number('Voltage lost to a DC-DC', '%', 5, [0.5, 20], `${lost}. The DC-DC makes up for it`),
  dropOther: number('Voltage lost to other loads', '%', 10, [1, 20], lost),
  dropCranking: number(
    'Voltage lost to a starter motor',
    '%',
    10,
    [1, 30],
    'At the engine’s cranking current',
  ),
  mainShare: number(
    'Main leads carry at least, share of the battery’s continuous current',
    '%',
    50,
    [0, 100],
    'More loads are added to a bar over time',
  ),
  joinWithinV: number(
    'Largest difference in resting voltage when batteries are joined',
    'V',
    0.05,
    [0.01, 0.5],
    'For a 12 V battery. Otherwise the fuller one discharges into the other',
  ),
  fuseWithinMm: number(
    'Largest distance from source to fuse',
    'mm',
    180,
    [20, 2000],
    'The cable between source and fuse burns in a fault. Longer only in a separate sheath',
  ),
  grading: number(
    'Rating of the fuse nearer the source, as a multiple of the next',
    '×',
    1.6,
    [1, 4],
    'The smaller fuse opens first, and everything else keeps working',
  ),
  runMinutes: number(
    'Time to lay and connect a new run',
    'min',
    12,
    [0, 240],
    'Includes both lugs. The steps include mounting and setting',
  ),
  deviceMinutes: number(
    'Time to mount a fuse, switch or bar',
    'min',
    10,
    [0, 240],
    'On a board, with its cover',
  ),
  unequalShare: number(
    'Unequal current accepted in a bank',
    '%',
    5,
    [1, 50],
    'The battery that works hardest ages first, and its BMS cuts out first',
  ),
} as const
