import { number } from '../rule'

export const keeping = {
  capacityLeftShare: number(
    'Capacity at which a battery is due for replacement, share of new',
    '%',
    80,
    [40, 95],
    'Most makers guarantee 70 or 80 %. A customer who sized the battery for its days notices earlier',
  ),
  jointGrowth: number(
    'Resistance at which a joint is remade, against new',
    '×',
    1.5,
    [1.1, 5],
    'A joint that has grown by half warms and goes on growing',
  ),
  crankGrowth: number(
    'Resistance at which a starting battery is due for replacement, against new',
    '×',
    2,
    [1.2, 5],
    'A starting battery with twice its resistance cranks slowly on a cold morning',
  ),
  checkAheadYears: number(
    'Time ahead in which the logbook warns of a limit',
    'years',
    2,
    [0.5, 10],
    'Craft come back about once a year, so a warning arrives one visit early',
  ),
}
