import {
  choice,
  optional,
  quantity,
  yesNo,
  type Condition,
  type Fields,
  withDecisions,
} from '#core/job/field'
import { chargeStages, madeFor } from './stages'

const onMains: Condition = { field: 'feeds', is: ['house', 'both'] }

export const chargers = {
  kind: choice(
    'Kind',
    { charger: 'Mains charger', converter: 'Converter with fuse block', combi: 'Inverter-charger' },
    'Label. An inverter-charger has an AC output.',
    { how: 'label', otherwise: 'charger' },
  ),
  ...chargeStages,
  nominalV: madeFor,
  feeds: choice(
    'Output to',
    { house: 'House bank', starting: 'Starting battery', both: 'Both' },
    'Follow its output leads.',
    { otherwise: 'house' },
  ),
  hours: quantity('Hours plugged in a day', 'h', 1, [0, 24], [0, 12], 'Ask about a normal day.', {
    how: 'customer',
  }),
  outputs: quantity('Outputs', '', 1, [1, 8], [1, 3], 'Count the positive terminals.', {
    otherwise: 1,
    detail: true,
  }),
  holdsFuseBlock: yesNo('DC fuse block inside', 'Look for a row of blade fuses on its front.', {
    otherwise: 'no',
    detail: true,
  }),
  supplyV: quantity(
    'AC supply',
    'V',
    10,
    [90, 480],
    [110, 240],
    'Label at the inlet. A licensed person works on the mains side.',
    { how: 'label', otherwise: 230, detail: true, when: [onMains] },
  ),
  supplyLimitA: optional(
    'AC supply limit',
    'A',
    1,
    [1, 10_000],
    [5, 32],
    'Breaker of the shore or site supply. Leave empty if none.',
    { detail: true, when: [onMains] },
  ),
  efficiency: quantity('Efficiency', '%', 1, [40, 100], [75, 95], 'Maker’s sheet.', {
    how: 'maker',
    otherwise: 'chargerEfficiency',
    detail: true,
  }),
  powerFactor: quantity(
    'Power factor',
    '×',
    0.05,
    [0.3, 1],
    [0.6, 1],
    'Maker’s sheet. A corrected unit has 0.95 or more.',
    { how: 'maker', otherwise: 'chargerPowerFactor', detail: true },
  ),
} satisfies Fields

export const generators = withDecisions(
  {
    watts: quantity('Power', 'W', 100, [100, 50_000], [800, 3500], 'Label, continuous.', { how: 'label' }),
    hours: quantity('Hours it runs a day', 'h', 0.5, [0, 24], [0.5, 4], 'Ask about a normal day.', {
      how: 'customer',
      otherwise: 0,
    }),
  } satisfies Fields,
  ['hours'],
)
