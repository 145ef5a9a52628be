import { number } from '../rule'

export const capacity = {
  usableLithium: number(
    'Usable share of lithium',
    '%',
    80,
    [50, 100],
    'Longer life and a reserve before cut-off; others use 75, 90 or 100 %',
  ),
  usableLead: number('Usable share of lead-acid', '%', 50, [20, 80], 'Below half charge its life falls fast'),
  leadAgeing: number('Capacity lead loses in a year', '%', 5, [0, 30], 'Where no capacity test was made'),
  leadOldest: number(
    'Least that is left of an old lead battery',
    '%',
    40,
    [0, 100],
    'Below it somebody would have replaced it',
  ),
  enoughShare: number(
    'Daily use at which lead would do',
    '%',
    60,
    [10, 100],
    'Share of what the lead bank in good order gives; above it the customer feels the difference',
  ),
  lowSoc: number(
    'State of charge at which heavy loads must still run',
    '%',
    20,
    [5, 50],
    'Voltage is lower there, so current is higher',
  ),
  inverterEfficiency: number('Inverter efficiency', '%', 90, [60, 99], 'Where its data give none'),
  sharing: number(
    'Share each battery of a parallel bank can be counted on for',
    '%',
    90,
    [50, 100],
    'Currents never divide quite evenly; the cabling may make it worse',
  ),
  bankLinkMohm: number(
    'Lead between neighbours of a bank, with its lugs',
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
    'Beyond it the far ones work and age less than the near ones',
  ),
  unlikeYears: number(
    'Largest age apart of lithium batteries in parallel',
    'years',
    1,
    [0, 10],
    'An aged battery has more resistance and takes less than its share',
  ),
} as const
