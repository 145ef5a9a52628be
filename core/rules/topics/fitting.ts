import { number, school } from '../rule'

export const fitting = {
  airGapMm: number(
    'Air around each battery',
    'mm',
    10,
    [0, 100],
    'Heat leaves by the sides, and hands must reach the posts',
  ),
  deviceTripLow: number(
    'A voltage device is useful from',
    '%',
    10,
    [0, 40],
    'Below it the warning comes too late',
  ),
  deviceTripHigh: number(
    'A voltage device is useful up to',
    '%',
    40,
    [10, 80],
    'Above it the device trips with energy to spare',
  ),
  ohmicShare: number(
    'Share of pack resistance that limits a short circuit',
    '%',
    33,
    [10, 100],
    'The ohmic part alone acts in the first milliseconds; the BMS is never relied on',
  ),
  crankColdShare: number(
    'Cranking current left on the coldest morning',
    '%',
    60,
    [10, 100],
    'Of the label, where the maker gives none for the cold; lithium gains as the first seconds warm it',
  ),
  labourPerH: number('Labour, an hour', 'money', 60, [0, 1000], 'What an answer costs beside its parts'),
  startS: number('Seconds of cranking a start takes', 's', 10, [1, 60], 'Three tries of three seconds'),
  standWeeks: number(
    'A vehicle stands long from',
    'weeks',
    4,
    [1, 52],
    'A month without the engine is what a starting battery bears',
  ),
  certificatesVessel: school(
    'Certificates asked for, vessels',
    {
      none: ['None', 'The shop judges by its own experience of the maker'],
      cell: ['Named for the cells', 'The cells decide whether it can burn'],
      both: ['Named for cells and pack', 'Insurers of vessels ask for the pack as well'],
    },
    'cell',
    'What most insurers ask first; set it to what this owner’s insurer asks',
  ),
  certificatesVehicle: school(
    'Certificates asked for, vehicles',
    {
      none: ['None', 'The shop judges by its own experience of the maker'],
      cell: ['Named for the cells', 'The cells decide whether it can burn'],
      both: ['Named for cells and pack', 'People sleep above it'],
    },
    'cell',
    'What most insurers ask first; set it to what this owner’s insurer asks',
  ),
} as const
