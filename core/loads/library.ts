import { present } from '#core/collections/held'
type Period = 'even' | 'morning' | 'afternoon' | 'evening' | 'night'

/** A load as it is usually met. Typical figures to start from; the label or a meter corrects them. */
export interface TypicalLoad {
  readonly name: string
  readonly group: string
  readonly values: {
    readonly supply: 'dc' | 'ac'
    readonly amps?: number
    readonly watts?: number
    readonly hours: number
    readonly period: Period
    readonly duty?: number
    readonly surge?: number
    readonly essential?: 'yes'
    readonly together?: 'no'
  }
}

const dc = (
  group: string,
  name: string,
  amps: number,
  hours: number,
  period: Period = 'even',
  more: Partial<TypicalLoad['values']> = {},
): TypicalLoad => ({ group, name, values: { supply: 'dc', amps, hours, period, ...more } })
const ac = (
  group: string,
  name: string,
  watts: number,
  hours: number,
  period: Period = 'even',
  more: Partial<TypicalLoad['values']> = {},
): TypicalLoad => ({ group, name, values: { supply: 'ac', watts, hours, period, ...more } })

/** Loads met on most vehicles and vessels, at 12 V. */
export const loadLibrary: readonly TypicalLoad[] = [
  dc('Light', 'Cabin lights, LED', 2.5, 5, 'evening'),
  dc('Light', 'Cabin lights, halogen', 8, 4, 'evening'),
  dc('Light', 'Anchor light', 0.3, 11, 'night', { essential: 'yes' }),
  dc('Light', 'Navigation lights', 2.5, 4, 'night', { essential: 'yes' }),
  dc('Light', 'Work lights', 6, 1, 'evening'),
  dc('Cold', 'Fridge, compressor', 4.5, 24, 'even', { duty: 35, surge: 3 }),
  dc('Cold', 'Freezer', 5, 24, 'even', { duty: 50, surge: 3 }),
  dc('Cold', 'Cool box', 4, 10, 'afternoon', { duty: 60 }),
  dc('Water', 'Fresh-water pump', 6, 0.3, 'even', { surge: 3, together: 'no' }),
  dc('Water', 'Bilge pump', 8, 0.2, 'even', { essential: 'yes', surge: 2.5, together: 'no' }),
  dc('Water', 'Wash-down pump', 12, 0.3, 'even', { surge: 3, together: 'no' }),
  dc('Water', 'Toilet pump', 18, 0.1, 'even', { surge: 2, together: 'no' }),
  dc('Water', 'Watermaker', 20, 1.5, 'afternoon', { surge: 2 }),
  dc('Warmth', 'Diesel heater, running', 1.5, 8, 'night'),
  dc('Warmth', 'Heater fan', 3.5, 8, 'night'),
  dc('Warmth', 'Roof fan', 2, 8, 'night'),
  dc('Electronics', 'Radio, standing by', 0.6, 24, 'even', { essential: 'yes' }),
  dc('Electronics', 'Radio, transmitting', 5.5, 0.2, 'even', { essential: 'yes', together: 'no' }),
  dc('Electronics', 'Plotter and sounder', 3, 8, 'morning', { essential: 'yes' }),
  dc('Electronics', 'Radar', 3.5, 3, 'night'),
  dc('Electronics', 'Autopilot', 4, 6, 'even', { surge: 3 }),
  dc('Electronics', 'Router', 1, 24),
  dc('Electronics', 'Phone and tablet charging', 2, 3, 'evening'),
  dc('Electronics', 'Television, 12 V', 3, 2.5, 'evening'),
  dc('Electronics', 'Alarm and standby', 0.3, 24, 'even', { essential: 'yes' }),
  dc('Motors', 'Anchor windlass', 90, 0.1, 'morning', { surge: 2, together: 'no' }),
  dc('Motors', 'Deck winch', 80, 0.4, 'morning', { surge: 2.5 }),
  dc('Motors', 'Bow thruster', 250, 0.05, 'morning', { surge: 1.5, together: 'no' }),
  dc('Motors', 'Caravan mover', 60, 0.1, 'afternoon', { surge: 2, together: 'no' }),
  ac('Kitchen', 'Kettle', 2000, 0.2, 'morning', { together: 'no' }),
  ac('Kitchen', 'Coffee machine', 1300, 0.2, 'morning', { together: 'no' }),
  ac('Kitchen', 'Microwave', 1200, 0.2, 'evening', { surge: 1.3, together: 'no' }),
  ac('Kitchen', 'Induction hob', 1500, 0.6, 'evening', { together: 'no' }),
  ac('Power', 'Laptop', 65, 4, 'even'),
  ac('Power', 'Television', 80, 2.5, 'evening'),
  ac('Power', 'Tool chargers', 150, 3, 'even'),
  ac('Power', 'Hair dryer', 1400, 0.1, 'morning', { together: 'no' }),
  ac('Power', 'Air conditioning', 700, 5, 'afternoon', { duty: 60, surge: 3 }),
  ac('Power', 'Heat pump', 900, 6, 'even', { duty: 50, surge: 3 }),
  ac('Power', 'Screens', 150, 6, 'afternoon'),
  ac('Power', 'Sound desk and speakers', 350, 2, 'evening'),
  ac('Power', 'Stage lights', 450, 2, 'evening'),
]

/** The loads of the library that a measured current could be, most likely first. */
export function likelyLoads(amps: number, cycling: boolean, most = 4): readonly TypicalLoad[] {
  const apart = (load: TypicalLoad): number =>
    Math.abs(Math.log((load.values.amps ?? present(load.values.watts) / 11.5) / Math.max(amps, 0.05))) +
    (cycling === (load.values.duty ?? 100) < 100 ? 0 : 0.7)
  return [...loadLibrary].sort((a, b) => apart(a) - apart(b)).slice(0, most)
}
