import { number } from '../rule'

export const capacity = {
  usableLithium: number(
    'Usable share of lithium',
    '%',
    80,
    [50, 100],
    'Longer life and a reserve before cut-off. Others use 75, 90 or 100 %',
  ),
  usableLead: number('Usable share of lead-acid', '%', 50, [20, 80], 'Below half charge its life falls fast'),
  leadAgeing: number('Capacity lead loses in a year', '%', 5, [0, 30], 'Where no capacity test was made'),
  leadOldest: number(
    'Smallest capacity left in an old lead-acid battery',
    '%',
    40,
    [0, 100],
    'Below this it would have been replaced',
  ),
  enoughShare: number(
    'Daily use below which lead-acid would do',
    '%',
    60,
    [10, 100],
    'Share of a healthy lead-acid bank’s capacity. Above it the customer notices the difference',
  ),
  lowSoc: number(
    'State of charge at which heavy loads must still run',
    '%',
    20,
    [5, 50],
    'Voltage is lower there, so current is higher',
  ),
  inverterEfficiency: number(
    'Inverter efficiency',
    '%',
    90,
    [60, 99],
    'Used where its data sheet gives none',
  ),
  sharing: number(
    'Share of its rating you can count on from each battery of a parallel bank',
    '%',
    90,
    [50, 100],
    'Currents never divide exactly evenly, and the cables can make it worse',
  ),
  bankLinkMohm: number(
    'Lead between two batteries of a bank, with its lugs',
    'mΩ',
    0.5,
    [0.01, 5],
    'About 0.3 m of 35 mm² and two lugs',
  ),
  leadParallelMost: number(
    'Most lead-acid strings in parallel',
    '',
    4,
    [1, 10],
    'Beyond this, batteries far from the leads work less than the near ones',
  ),
  unlikeYears: number(
    'Largest age difference of lithium batteries in parallel',
    'years',
    1,
    [0, 10],
    'An aged battery has more resistance and carries less than its share',
  ),
} as const
