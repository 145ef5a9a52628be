import { loadStop } from '#core/wiring/propose/bars'
import { fuseLabel } from '../fuse-label'
import { set, setValue, valued, type Remedy } from '../remedy'

/** The name of a part left out of the plan. */
function proposedThere(on: string): string {
  if (on === `fittings/${loadStop}`) return 'contactor'
  return on === 'fittings/main-switch' ? 'main switch' : 'fuse'
}

/** Remedies of the wiring: hand-set values of a run, a fuse, a switch or a bar. */
export const wiring = {
  'run.thicker': {
    kind: 'wiring',
    label: valued(
      ({ value, values }, q) =>
        `Replace this run with ${values?.count ? `${values.count} × ` : ''}${q(value, 'mm²')} cable`,
    ),
    takes: 'cable by the metre',
    hours: 1,
    effect: set(valued(({ value, values }) => ({ areaMm2: value, ...values }))),
    wants: 'Cable by the metre',
    largerMeetsBoth: true,
  },
  'run.on-bar': {
    kind: 'wiring',
    label: () => 'Move this return to the negative bar, behind the shunt',
    takes: 'a lug',
    hours: 0.5,
    effect: set(() => ({ landsOn: 'bar' })),
  },
  'run.return-cable': {
    kind: 'wiring',
    label: () => 'Run a negative cable of the same size next to it',
    takes: 'cable by the metre',
    hours: 1,
    effect: set(() => ({ returnBy: 'cable' })),
    wants: 'Cable by the metre',
  },
  'fitting.fuse': {
    kind: 'part',
    label: valued(({ value, values }, q) => fuseLabel(value, values?.family, q)),
    takes: '1 part and its holder',
    hours: 0.5,
    effect: set(valued(({ value, values }) => ({ ratedA: value, ...values }))),
    wants: 'Fuse and holder',
  },
  'fitting.add': {
    kind: 'part',
    label: ({ on }) => `Fit the ${proposedThere(on)} that the plan shows there`,
    takes: '1 part',
    hours: 0.5,
    effect: set(() => ({ absent: 'no' })),
    wants: 'Fuse with its holder, switch or contactor',
  },
  'fitting.battery-side': {
    kind: 'wiring',
    label: () => 'Connect it on the battery side of the main switch, through its own fuse',
    takes: 'a lug',
    hours: 0.5,
    effect: set(() => ({ standsOn: 'battery' })),
  },
  'fitting.larger': {
    kind: 'part',
    label: valued(({ value }, q) => `Fit one rated for ${q(value, 'A')}`),
    takes: '1 part',
    hours: 0.5,
    effect: setValue('ratedA'),
    wants: 'Switch, relay or bar',
  },
  'fitting.nearer': {
    kind: 'wiring',
    label: valued(({ value }, q) => `Move the fuse to within ${q(value, 'mm')} of its source`),
    takes: 'a holder and lugs',
    hours: 0.5,
    effect: setValue('distanceMm'),
  },
  'bank.equal-leads': {
    kind: 'wiring',
    label: () => 'Fit equal leads from each battery to one post for each pole',
    takes: 'two posts and equal leads',
    hours: 1.5,
    effect: (_order, job) => set(() => ({ layout: 'busbar' }))({ on: 'candidate' }, job),
    wants: 'Posts and equal leads',
  },
} as const satisfies Record<string, Remedy>
