import { school } from '../rule'

export const schools = {
  chargerSchool: school(
    'Charger without a lithium profile',
    {
      window: [
        'Allowed while its voltages stay inside the battery’s window',
        'A meter decides, not the word on the lid; what it leaves uncharged another source tops up',
      ],
      replace: [
        'Replace always',
        'One visit, one known profile, nothing left to a switch that someone moves',
      ],
    },
    'window',
    'Decided by numbers that can be measured; a slower or incomplete charge is topped up by another source',
  ),
  mixedSchool: school(
    'Lithium in direct parallel with lead-acid',
    {
      never: [
        'Never: a DC-DC unit always stands between',
        'Each battery gets its own charge, and most makers allow nothing else',
      ],
      hybrid: [
        'Allowed as a hybrid bank, with conditions',
        'The lead stays on the alternator, the lithium works first; stops and switches keep both safe',
      ],
    },
    'never',
    'Few battery makers permit it; the hybrid bank is one click away and fully supported',
  ),
  alternatorSchool: school(
    'Protecting the alternator',
    {
      dcdc: ['DC-DC unit that limits the current', 'Limits current and makes the right voltage at once'],
      duty: ['Duty-cycling relay that opens on over-current', 'Cheap, and full current while it is closed'],
      regulator: [
        'External regulator with a temperature sensor',
        'Gives all the machine can bear, and no more',
      ],
      cable: ['Deliberate resistance in the cable', 'Nothing to fail, no signal, no setting'],
    },
    'dcdc',
    'All four are offered; a DC-DC first, since it also suits a computer-controlled alternator',
  ),
  chargeRateSchool: school(
    'Charge current held to',
    {
      recommended: ['The maker’s recommended figure', 'The cycle life on the sheet was measured with it'],
      largest: ['The maker’s largest figure', 'Short charging times are worth some life'],
    },
    'recommended',
    'The maker’s recommendation is what the cycle life is stated for',
  ),
  coldSchool: school(
    'Cold limit',
    {
      maker: ['The maker’s own lower figure where there is one', 'The maker knows the cells'],
      zero: ['0 °C for everything', 'One limit that everybody remembers'],
    },
    'maker',
    '0 °C unless the maker’s data say otherwise',
  ),
  fullSchool: school(
    'Full regularly, or held lower',
    {
      full: [
        'Charge to full now and then, so that cells balance',
        'Cells drift apart and only meet again at the top',
      ],
      held: ['Hold at 80 to 90 % for life', 'Cells age fastest while they sit full'],
    },
    'full',
    'Full at least monthly, held lower while laid up',
  ),
  layupSchool: school(
    'Lay-up charge',
    {
      rest: ['50 to 70 % and disconnected', 'Nothing connected, nothing to go wrong'],
      topped: ['Topped up every fortnight', 'Ready to go at any time'],
    },
    'rest',
    '60 % and disconnected, checked monthly',
  ),
  signalSchool: school(
    'Running signal for a DC-DC unit',
    {
      fitting: ['A wire where voltage would mislead, otherwise either', 'As much work as the vehicle needs'],
      wire: ['Ignition or alternator wire, always', 'A wire is never wrong'],
      voltage: [
        'Voltage detection will do unless a computer controls the alternator',
        'No wire to run, nothing to find in the loom',
      ],
    },
    'fitting',
    'A wire where the alternator is computer-controlled, or a charger or solar also feeds the starting battery',
  ),
  upkeepSchool: school(
    'Starting battery when plugged in or parked',
    {
      trickle: ['Trickle it', 'A starting battery that stands flat is a starting battery lost'],
      leave: ['Leave it to the engine', 'One thing less to fit'],
    },
    'trickle',
    'Trickle where the vehicle stands more than a month',
  ),
} as const
