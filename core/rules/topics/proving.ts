import { number } from '../rule'

export const proving = {
  hiddenLeft: number(
    'Largest accepted chance of a hidden fault',
    '%',
    1,
    [0.1, 20],
    'Essential tests are added until the chance is below this, up to 15 readings',
  ),
  dangerousLeft: number(
    'Largest accepted chance of a hidden fault that can start a fire',
    '%',
    0.1,
    [0.01, 5],
    'The same for faults that can start a fire. The stricter of the two decides',
  ),
}
