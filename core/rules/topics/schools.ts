import { joinText } from '#core/units/format'
import { school } from '../rule'

export const schools = {
  chargerSchool: school(
    'Charger without a lithium profile',
    {
      window: [
        'Allowed if its voltages stay inside the battery’s window',
        'A meter decides, not the label. Another source completes the charge',
      ],
      replace: ['Replace always', 'One visit, one known profile, and no switch that someone can move'],
    },
    'window',
    'Measured numbers decide. Another source completes a slower or partial charge',
  ),
  mixedSchool: school(
    'Lithium in direct parallel with lead-acid',
    {
      never: [
        'Never: always fit a DC-DC between them',
        'Each battery gets the right charge, and most makers allow nothing else',
      ],
      hybrid: [
        'Allowed as a hybrid bank, with conditions',
        joinText(
          'The lead-acid stays on the alternator and the lithium works first. ',
          'Stops and switches keep both safe',
        ),
      ],
    },
    'never',
    'Few battery makers allow it. Choose the hybrid bank for a job where the maker does',
  ),
  alternatorSchool: school(
    'Protecting the alternator',
    {
      dcdc: ['DC-DC unit that limits the current', 'Limits the current and gives the right voltage'],
      duty: ['Duty-cycling relay that opens on over-current', 'Cheap, and full current while it is closed'],
      regulator: [
        'External regulator with a temperature sensor',
        'Gives as much as the machine can deliver safely',
      ],
      cable: [
        'Deliberate resistance in the cable',
        'Nothing can fail, and it needs no signal and no setting',
      ],
    },
    'dcdc',
    'All four are offered. A DC-DC comes first because it also suits a computer-controlled alternator',
  ),
  chargeRateSchool: school(
    'Charge current limited to',
    {
      recommended: [
        'The maker’s recommended figure',
        'The cycle life on the data sheet was measured with it',
      ],
      largest: ['The maker’s largest figure', 'Shorter charging is worth some battery life'],
    },
    'recommended',
    'The stated cycle life assumes the recommended current',
  ),
  coldSchool: school(
    'Cold limit',
    {
      maker: ['The maker’s lower figure where there is one', 'The maker knows the cells'],
      zero: ['0 °C for everything', 'One limit that everyone remembers'],
    },
    'maker',
    '0 °C unless the maker’s data say otherwise',
  ),
  fullSchool: school(
    'Charge to full, or hold lower',
    {
      full: [
        'Charge to full now and then, so that cells balance',
        'Cells drift apart and only rebalance near full',
      ],
      held: ['Hold at 80 to 90 % for life', 'Cells age fastest at full charge'],
    },
    'full',
    'Full at least once a month, lower during lay-up',
  ),
  layupSchool: school(
    'Lay-up charge',
    {
      rest: ['50 to 70 % and disconnected', 'Nothing is connected, so nothing can go wrong'],
      topped: ['Topped up every fortnight', 'Ready to go at any time'],
    },
    'rest',
    '60 % and disconnected, checked monthly',
  ),
  signalSchool: school(
    'Running signal for a DC-DC unit',
    {
      fitting: [
        'A wire where voltage would mislead, otherwise either one',
        'Only as much work as the vehicle needs',
      ],
      wire: ['Ignition or alternator wire, always', 'A wire is never wrong'],
      voltage: [
        'Voltage detection is enough unless a computer controls the alternator',
        'No wire to run and no loom to search',
      ],
    },
    'fitting',
    joinText(
      'A wire where the alternator is computer-controlled, ',
      'or a charger or solar also feeds the starting battery',
    ),
  ),
  upkeepSchool: school(
    'Starting battery while plugged in or parked',
    {
      trickle: ['Trickle-charge it', 'A starting battery that stays flat is ruined'],
      leave: ['Leave it to the engine', 'One thing less to fit'],
    },
    'trickle',
    'Trickle-charge where the vehicle is parked for more than a month',
  ),
} as const
