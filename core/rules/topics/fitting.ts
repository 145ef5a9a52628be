import { number, school } from '../rule'

export const fitting = {
  airGapMm: number(
    'Air around each battery',
    'mm',
    10,
    [0, 100],
    'Heat leaves through the sides, and hands must reach the posts',
  ),
  deviceTripLow: number(
    'A voltage device is useful from',
    '%',
    10,
    [0, 40],
    'Below this the warning comes too late',
  ),
  deviceTripHigh: number(
    'A voltage device is useful up to',
    '%',
    40,
    [10, 80],
    'Above this the device trips while there is still energy left',
  ),
  ohmicShare: number(
    'Share of pack resistance that limits a short circuit',
    '%',
    33,
    [10, 100],
    'Only the ohmic part acts in the first milliseconds. The BMS does not count as protection',
  ),
  crankColdShare: number(
    'Cranking current left on the coldest morning',
    '%',
    60,
    [10, 100],
    'Share of the label, where the maker gives no cold figure. Lithium improves as the first seconds warm it',
  ),
  labourPerH: number('Labour, an hour', 'money', 60, [0, 1000], 'Added to the parts of each answer'),
  startS: number('Cranking time for a start', 's', 10, [1, 60], 'Three tries of three seconds'),
  standWeeks: number(
    'A vehicle is parked long from',
    'weeks',
    4,
    [1, 52],
    'A starting battery lasts about a month without the engine',
  ),
  certificatesVessel: school(
    'Certificates asked for, vessels',
    {
      none: ['None', 'The shop relies on its own experience of the maker'],
      cell: ['Named for the cells', 'The cells decide whether it can burn'],
      both: ['Named for cells and pack', 'Insurers of vessels ask for the pack as well'],
    },
    'cell',
    'Most insurers ask for this first. Set it to what this owner’s insurer asks for',
  ),
  certificatesVehicle: school(
    'Certificates asked for, vehicles',
    {
      none: ['None', 'The shop relies on its own experience of the maker'],
      cell: ['Named for the cells', 'The cells decide whether it can burn'],
      both: ['Named for cells and pack', 'People sleep above it'],
    },
    'cell',
    'Most insurers ask for this first. Set it to what this owner’s insurer asks for',
  ),
} as const
