import { number } from '../rule'

export const proving = {
  hiddenLeft: number(
    'Chance of a hidden fault that is small enough',
    '%',
    1,
    [0.1, 20],
    'Essential tests are added until less is left, or 15 readings are reached',
  ),
  dangerousLeft: number(
    'Chance of a hidden fault that can start a fire',
    '%',
    0.1,
    [0.01, 5],
    'The same for what can burn; whichever asks for more tests decides',
  ),
}
