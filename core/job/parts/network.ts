import { choice, optional, quantity, yesNo, type Fields, withDecisions } from '#core/job/field'
import { places } from './use'
import { conductors, fuseFamilies, insulations } from './wiring'

/** What is set by hand of a run of the wiring; all that is empty is as proposed. */
export const runs = withDecisions({
  lengthM: quantity('One-way length', 'm', 0.1, [0.02, 100], [0.5, 6], 'Pull a cord along the run.', {
    how: 'measured',
  }),
  areaMm2: optional('Size', 'mm²', 1, [0.5, 400], [1.5, 95], 'Print on the sheath. Empty: as worked out.', {
    absent: 'as worked out',
  }),
  count: optional('Conductors side by side', '', 1, [1, 6], [1, 2], 'Count the lugs. Empty: as worked out.', {
    absent: 'as worked out',
    detail: true,
  }),
  shortestM: optional(
    'Shortest of them',
    'm',
    0.1,
    [0.02, 100],
    [0.5, 6],
    'Where cables side by side differ in length: pull a cord along the shortest. Empty: all are alike.',
    { absent: 'all are alike', detail: true, how: 'measured' },
  ),
  milliohm: optional(
    'Resistance, measured',
    'mΩ',
    0.1,
    [0.001, 10_000],
    [0.1, 20],
    'Voltage between its two ends ÷ the current in it. Empty: by size and length.',
    { absent: 'by size and length', detail: true, how: 'measured' },
  ),
  insulationC: choice('Insulation rating', insulations, 'Print on the sheath.', { otherwise: '90' }),
  engineSpace: conductors.engineSpace,
  airC: conductors.airC,
  bundled: conductors.bundled,
  material: conductors.material,
  returnBy: conductors.returnBy,
  landsOn: choice(
    'Its return lands on',
    { bar: 'The negative bar', battery: 'The battery’s own post' },
    'Follow the negative cable to its lug.',
    { otherwise: 'bar', detail: true },
  ),
} satisfies Fields)

/** Where a fuse, a switch or a bar stands. */
export const fittingPlaces = { ...places, outside: 'Outside' } as const

/** Threads of the studs on which lugs land. */
export const studs = { M5: 'M5', M6: 'M6', M8: 'M8', M10: 'M10', M12: 'M12' } as const

/** What is set by hand of a fuse, switch, relay, shunt, bar or plug of the wiring. */
export const fittings = withDecisions({
  absent: yesNo('Left out', 'Look: what is proposed here may not be there.', {
    otherwise: 'no',
    detail: true,
  }),
  family: choice('Fuse type', fuseFamilies, 'Shape and print of the fuse. Empty: as worked out.', {
    absent: 'as worked out',
  }),
  ratedA: optional('Rating', 'A', 5, [0.5, 5000], [10, 300], 'Its print. Empty: as worked out.', {
    absent: 'as worked out',
  }),
  aicA: optional(
    'Interrupt rating',
    'A',
    500,
    [100, 200_000],
    [1000, 20_000],
    'Maker’s sheet, at this voltage. Empty: usual for its kind.',
    { absent: 'usual for its kind', detail: true },
  ),
  place: choice('Place', fittingPlaces, 'Look where it stands, or will.', {
    absent: 'not said',
    detail: true,
  }),
  stud: choice('Stud', studs, 'Print beside it, or a gauge over its thread. Empty: usual for its cable.', {
    absent: 'usual for its cable',
    detail: true,
  }),
  standsOn: choice(
    'Stands on',
    { first: 'First bar', second: 'Second bar', battery: 'Battery side of the main switch' },
    'Follow its cable. Only circuits that must never be switched off stand on the battery side.',
    { otherwise: 'first', detail: true },
  ),
  distanceMm: optional(
    'Cable between source and fuse',
    'mm',
    10,
    [1, 20_000],
    [50, 1000],
    'Tape along the cable. Empty: as the run is long.',
    { absent: 'as the run is long', detail: true },
  ),
  sheathed: yesNo('That cable is in a sheath or conduit of its own', 'Look.', {
    otherwise: 'no',
    detail: true,
  }),
} satisfies Fields)

/** A branch that is neither in the survey nor in the answer: a spare way, a socket. */
export const branches = withDecisions({
  what: choice(
    'What it feeds',
    { spare: 'Nothing yet: a spare way', fans: 'Fans', socket: 'Sockets', other: 'Something else' },
    'What the customer wants there.',
    { otherwise: 'spare' },
  ),
  amps: quantity('Draw', 'A', 1, [0, 1000], [1, 20], 'Label, or a clamp meter while it runs.', {
    otherwise: 10,
  }),
} satisfies Fields)
