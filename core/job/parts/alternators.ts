import { joinText } from '#core/units/format'
import {
  choice,
  optional,
  quantity,
  rows,
  systemVoltages,
  volts,
  yesNo,
  type Fields,
  withDecisions,
} from '#core/job/field'
import { plausibleRiseK, plausibleTauMin, usualTauMin } from '#core/physics/alternator'
import { temperatureReadings } from './wiring'

/** The log of one drive. */
const computer = { minutes: 60, when: [{ field: 'regulator', is: ['computer'] }] } as const

export const alternators = withDecisions(
  {
    machine: choice(
      'Machine',
      {
        wound: 'Wound rotor, regulated through its field',
        magnet: 'Permanent magnets, with a regulator that shunts the excess',
      },
      joinText(
        'Motorcycles and small outboards have magnets: ',
        'look for three wires from the crankcase to a finned box.',
      ),
      { otherwise: 'wound', detail: true },
    ),
    nominalV: choice('Nominal voltage', systemVoltages, 'Label.', { how: 'label' }),
    ratedA: quantity('Rated current', 'A', 5, [5, 1000], [45, 200], 'Label on the housing.', {
      how: 'label',
    }),
    regulator: choice(
      'Regulator',
      {
        fixed: 'Fixed voltage',
        compensated: 'Fixed voltage, lower when warm',
        computer: 'Computer-controlled',
        external: 'External, can be set',
      },
      joinText(
        'Watch the voltage for ten minutes of driving. ',
        'If it swings below 13 V or above 14.8 V, a computer controls it.',
      ),
      { minutes: 20 },
    ),
    regulatorV: volts(
      'Regulator voltage',
      (at) => {
        const seen: [number | null, number | null] = [at.number('lowestV'), at.number('highestV')]
        return [seen[0] ?? 13.6, Math.max(seen[0] ?? 0, seen[1] ?? 14.6)]
      },
      'Measure between the alternator stud and its case, engine warm, at 1500 rpm.',
      { minutes: 20, when: [{ field: 'regulator', is: ['fixed', 'compensated', 'external'] }] },
    ),
    lowestV: volts(
      'Lowest seen on a drive',
      [12.2, 13.8],
      'Log the starting battery voltage for one drive.',
      computer,
    ),
    highestV: volts(
      'Highest seen on a drive',
      [14.4, 15.4],
      'Log the starting battery voltage for one drive that includes coasting downhill.',
      computer,
    ),
    driveTally: rows(
      'Minutes at each voltage',
      [
        { name: 'minutes', label: 'For', unit: 'min', limits: [0, 10_000] },
        { name: 'volts', label: 'At', unit: 'V', limits: [0, 80] },
      ],
      ' at ',
      'Count the minutes at each voltage from the log of one drive.',
      computer,
    ),
    vehicleDrawA: quantity(
      'Draw of engine and lights',
      'A',
      1,
      [0, 300],
      [4, 40],
      'Clamp the alternator lead with the house side disconnected, lights and fans on.',
    ),
    idleRpm: quantity('Engine speed at idle', 'rpm', 50, [200, 3000], [650, 900], 'Rev counter.', {
      otherwise: 750,
      detail: true,
    }),
    cruiseRpm: quantity('Engine speed at cruise', 'rpm', 100, [500, 10_000], [1500, 2800], 'Rev counter.', {
      otherwise: 2000,
      detail: true,
    }),
    pulleyRatio: quantity(
      'Pulley ratio',
      '×',
      0.1,
      [0.5, 6],
      [1.8, 3],
      'Crank pulley diameter ÷ alternator pulley diameter.',
      { otherwise: 2.4, detail: true },
    ),
    driveHours: quantity('Hours it runs a day', 'h', 0.5, [0, 24], [0.5, 6], 'Ask about a normal day.', {
      how: 'customer',
    }),
    idleShare: quantity('Share of that at idle', '%', 5, [0, 100], [5, 50], 'Ask about a normal day.', {
      how: 'customer',
      otherwise: 20,
      detail: true,
    }),
    limitA: optional(
      'Current limit fitted',
      'A',
      5,
      [1, 10_000],
      [10, 100],
      'The current set in an external regulator or a duty-cycling relay. Leave empty if none.',
      { detail: true },
    ),
    fieldWire: choice(
      'Field wire or temperature sensor',
      { none: 'Neither', field: 'Field wire brought out', sensor: 'Temperature sensor', both: 'Both' },
      'Look at the back of the machine.',
      { otherwise: 'none', detail: true },
    ),
    temperatureReadings,
    riseK: quantity(
      'Temperature rise of the case',
      'Δ°C',
      5,
      [5, 300],
      plausibleRiseK,
      joinText(
        'Load it with lamps, fans and heater for half an hour. Enter amps, ',
        'alternator speed and case temperature above, and the rise is calculated.',
      ),
      { minutes: 40, when: [{ field: 'machine', is: ['wound'] }], detail: true },
    ),
    tauMin: quantity(
      'Time for its case to warm',
      'min',
      1,
      [1, 120],
      plausibleTauMin,
      'Minutes at a steady load until two thirds of the final rise. Two readings above give it.',
      { otherwise: usualTauMin, when: [{ field: 'machine', is: ['wound'] }], detail: true },
    ),
    airC: optional(
      'Air around it when warm',
      '°C',
      5,
      [1, 120],
      [50, 70],
      joinText(
        'Put a thermometer next to it, away from its fan, after half an hour of running. ',
        'Empty: 40 °C in a vessel’s open engine space, 60 °C under a bonnet.',
      ),
      { when: [{ field: 'machine', is: ['wound'] }], detail: true },
    ),
    surgeProtector: yesNo(
      'Surge protector fitted',
      'Look for a small two-wire box on the alternator output.',
      {
        otherwise: 'no',
        detail: true,
      },
    ),
    chargeStopWire: yesNo(
      'Battery’s charge-stop signal wired to the regulator',
      'Look for a wire from the battery’s signal terminal to the regulator’s enable terminal.',
      { otherwise: 'no', detail: true },
    ),
  } satisfies Fields,
  ['machine'],
)
