import { choice, optional, quantity, yesNo, type Fields, withDecisions } from '#core/job/field'
import { places } from './use'
import { conductors, fuseFamilies, insulations } from './wiring'

/** Hand-set values of a run of the wiring; empty ones are as proposed. */
export const runs = withDecisions({
  lengthM: quantity(
    'One-way length',
    'm',
    0.1,
    [0.02, 100],
    [0.5, 6],
    'Lay a cord along the cable and measure it.',
    {
      how: 'measured',
    },
  ),
  areaMm2: optional(
    'Size',
    'mm²',
    1,
    [0.5, 400],
    [1.5, 95],
    'Read the print on the sheath. Empty: as calculated.',
    { how: 'label', absent: 'as calculated' },
  ),
  count: optional('Conductors side by side', '', 1, [1, 6], [1, 2], 'Count the lugs. Empty: as calculated.', {
    absent: 'as calculated',
    detail: true,
  }),
  shortestM: optional(
    'Shortest parallel conductor',
    'm',
    0.1,
    [0.02, 100],
    [0.5, 6],
    'Measure the shortest if parallel cables differ in length. Empty: all are equal.',
    { absent: 'all are equal', detail: true, how: 'measured' },
  ),
  milliohm: optional(
    'Measured resistance',
    'mΩ',
    0.1,
    [0.001, 10_000],
    [0.1, 20],
    'Voltage between its two ends ÷ its current. Empty: calculated from size and length.',
    { absent: 'calculated from size and length', detail: true, how: 'measured' },
  ),
  insulationC: choice('Insulation rating', insulations, 'Read the print on the sheath.', {
    how: 'label',
    otherwise: '90',
  }),
  engineSpace: conductors.engineSpace,
  airC: conductors.airC,
  bundled: conductors.bundled,
  material: conductors.material,
  returnBy: conductors.returnBy,
  landsOn: choice(
    'Its return connects to',
    { bar: 'The negative bar', battery: 'The battery post' },
    'Follow the negative cable to its lug.',
    { otherwise: 'bar', detail: true },
  ),
} satisfies Fields)

/** Where a fuse, a switch or a bar stands. */
export const fittingPlaces = { ...places, outside: 'Outside' } as const

/** Threads of the studs on which lugs land. */
export const studs = { M5: 'M5', M6: 'M6', M8: 'M8', M10: 'M10', M12: 'M12' } as const

/** Hand-set values of a fuse, switch, relay, shunt, bar or plug of the wiring. */
export const fittings = withDecisions({
  absent: yesNo('Left out', 'Look whether the proposed part is there.', {
    otherwise: 'no',
    detail: true,
  }),
  family: choice('Fuse type', fuseFamilies, 'Read the shape and print of the fuse. Empty: as calculated.', {
    absent: 'as calculated',
  }),
  ratedA: optional('Rating', 'A', 5, [0.5, 5000], [10, 300], 'Read its print. Empty: as calculated.', {
    absent: 'as calculated',
  }),
  aicA: optional(
    'Interrupt rating',
    'A',
    500,
    [100, 200_000],
    [1000, 20_000],
    'Maker’s sheet, at this voltage. Empty: typical for its kind.',
    { how: 'maker', absent: 'typical for its kind', detail: true },
  ),
  place: choice('Place', fittingPlaces, 'Look where it is, or will be.', {
    absent: 'unknown',
    detail: true,
  }),
  stud: choice(
    'Stud',
    studs,
    'Read the print next to it, or gauge its thread. Empty: typical for its cable.',
    { how: 'label', absent: 'typical for its cable', detail: true },
  ),
  standsOn: choice(
    'Fed from',
    { first: 'First bar', second: 'Second bar', battery: 'Battery side of the main switch' },
    'Follow its cable. Only circuits that must never be switched off belong on the battery side.',
    { otherwise: 'first', detail: true },
  ),
  distanceMm: optional(
    'Cable between source and fuse',
    'mm',
    10,
    [1, 20_000],
    [50, 1000],
    'Measure along the cable. Empty: the length of the run.',
    { absent: 'the length of the run', detail: true },
  ),
  sheathed: yesNo('That cable is in a separate sheath or conduit', 'Look.', {
    otherwise: 'no',
    detail: true,
  }),
} satisfies Fields)

/** A branch that is neither in the survey nor in the answer: a spare way, a socket. */
export const branches = withDecisions({
  what: choice(
    'What it feeds',
    { spare: 'Nothing yet (spare way)', fans: 'Fans', socket: 'Sockets', other: 'Something else' },
    'Ask what the customer wants there.',
    { otherwise: 'spare' },
  ),
  amps: quantity('Draw', 'A', 1, [0, 1000], [1, 20], 'Label, or a clamp meter while it runs.', {
    how: 'label',
    otherwise: 10,
  }),
} satisfies Fields)
