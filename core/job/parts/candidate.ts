import { typicalPackOhm } from '#core/physics/lfp'
import {
  choice,
  optional,
  quantity,
  rows,
  systemVoltages,
  usuallyFrom,
  volts,
  withDecisions,
  yesNo,
  type Fields,
} from '#core/job/field'

const sheet = 'Maker’s data sheet.'
const each = 'Maker’s data sheet, for one battery.'
const size = { detail: true } as const

/** Everything a maker's sheet says of one lithium battery. Voltages of the whole battery. */
export const candidate = withDecisions(
  usuallyFrom('maker', {
    chemistry: choice(
      'Chemistry',
      { lfp: 'Lithium iron phosphate (LFP)', nmc: 'Lithium NMC or cobalt', other: 'Other lithium' },
      sheet,
    ),
    purpose: choice('Made for', { house: 'House loads', starter: 'Starting an engine' }, sheet, {
      otherwise: 'house',
    }),
    nominalV: choice('Nominal voltage of each', systemVoltages, 'Label. 12.8 V counts as 12 V.', {
      otherwise: '12',
    }),
    series: quantity('In series', '', 1, [1, 4], [1, 2], 'How many you would fit in series.', {
      how: 'assumed',
      otherwise: 1,
    }),
    parallel: quantity('In parallel', '', 1, [1, 20], [1, 4], 'How many you would fit side by side.', {
      how: 'assumed',
      otherwise: 1,
    }),
    layout: choice(
      'Parallel connection',
      {
        busbar: 'Equal leads to bus bars',
        diagonal: 'In a row, leads at opposite ends',
        ladder: 'In a row, both leads at the same end',
      },
      'Choose how you would wire them.',
      { otherwise: 'busbar', detail: true },
    ),
    mostParallel: quantity('Allowed in parallel', '', 1, [1, 20], [1, 4], sheet, { otherwise: 1 }),
    mostSeries: quantity('Allowed in series', '', 1, [1, 8], [1, 4], sheet, { otherwise: 1 }),
    ahEach: quantity('Capacity of each', 'Ah', 10, [1, 3000], [100, 300], 'Label.'),
    reserve: quantity('Reserve the BMS holds back', '%', 1, [0, 50], [0, 20], sheet, {
      otherwise: 0,
      ...size,
    }),
    chargeLowV: volts('Charge voltage, lowest', [14, 14.4], sheet, { otherwise: 'windowLowV' }),
    chargeHighV: volts('Charge voltage, highest', [14.4, 14.6], sheet, { otherwise: 'windowHighV' }),
    chargeRecommendedV: volts(
      'Charge voltage, recommended',
      [14.2, 14.6],
      'Maker’s data sheet. Empty: the middle of the window.',
      { otherwise: ({ value }) => (value('chargeLowV') + value('chargeHighV')) / 2, detail: true },
    ),
    absoluteHighV: volts('Absolute highest voltage', [14.6, 15], sheet, { otherwise: 'absoluteHighV' }),
    bmsOverV: volts('BMS charge cut', [14.6, 15.6], sheet, { otherwise: 'bmsOverVoltageV' }),
    bmsOverReturnV: volts('Charging again below', [13.8, 14.4], sheet, { otherwise: 14, ...size }),
    bmsUnderV: volts('BMS discharge cut', [9.2, 11], sheet, { otherwise: 10, ...size }),
    bmsUnderReturnV: volts('Discharging again above', [11, 12.8], sheet, { otherwise: 12, ...size }),
    floatAllowed: choice('Float', { limited: 'Allowed up to a voltage', off: 'Must be off' }, sheet, {
      otherwise: 'limited',
    }),
    maxFloatV: volts('Highest float', [13.4, 13.8], sheet, {
      when: [{ field: 'floatAllowed', is: ['limited'] }],
      otherwise: 'maxFloatV',
    }),
    recommendedChargeA: quantity('Recommended charge current', 'A', 5, [0.5, 2000], [20, 100], each, {
      otherwise: ({ value, rules }) => rules.chargeRateC * value('ahEach'),
    }),
    largestChargeA: quantity('Largest charge current', 'A', 5, [0.5, 2000], [50, 200], each, {
      otherwise: ({ value }) => value('recommendedChargeA'),
      isLeast: true,
    }),
    continuousA: quantity(
      'Largest continuous discharge',
      'A',
      5,
      [1, 5000],
      (at) => {
        const ah = at.number('ahEach')
        return ah === null ? [50, 200] : [ah / 2, ah]
      },
      each,
    ),
    peakA: quantity('Peak discharge', 'A', 10, [1, 10_000], [100, 400], each, {
      otherwise: ({ value }) => value('continuousA'),
      isLeast: true,
    }),
    peakS: quantity('Peak duration', 's', 1, [0.01, 600], [1, 30], sheet, { otherwise: 5, ...size }),
    overCurrentA: quantity('BMS over-current cut', 'A', 10, [1, 10_000], [100, 600], each, {
      otherwise: ({ value }) => value('peakA'),
      ...size,
    }),
    overCurrentS: quantity('Delay of the over-current cut', 's', 1, [0.0001, 600], [0.01, 30], sheet, {
      otherwise: ({ value }) => value('peakS'),
      ...size,
    }),
    mostInverterW: optional(
      'Largest inverter allowed',
      'W',
      100,
      [10, 100_000],
      [500, 3000],
      'Maker’s data sheet, for one battery. Empty: none stated.',
      { ...size },
    ),
    resistanceMohm: quantity(
      'Resistance with its BMS',
      'mΩ',
      0.5,
      [0.1, 500],
      [2, 12],
      'Maker’s data sheet, or ΔV ÷ ΔA on a load step.',
      { otherwise: ({ value }) => typicalPackOhm(value('ahEach'), value('nominalV')) * 1000, ...size },
    ),
    restingCurve: rows(
      'Resting voltage of a cell by charge',
      [
        { name: 'percent', label: 'Charge', unit: '%', limits: [0, 100] },
        { name: 'volts', label: 'Cell', unit: 'V', limits: [1.5, 4.5] },
      ],
      ' at ',
      'Maker’s data sheet, at rest and 25 °C, from empty to full. Empty: the typical LFP curve.',
      { detail: true },
    ),
    coldLimitC: quantity('No charging below', '°C', 1, [-40, 15], [-20, 5], sheet, {
      otherwise: 'coldLimitC',
    }),
    coldReturnC: quantity('Charging again above', '°C', 1, [-40, 25], [2, 8], sheet, {
      otherwise: ({ value }) => value('coldLimitC') + 3,
      ...size,
    }),
    chargeHotC: quantity('No charging above', '°C', 1, [30, 80], [45, 60], sheet, { otherwise: 55, ...size }),
    chargeHotReturnC: quantity('Charging again below', '°C', 1, [20, 80], [40, 50], sheet, {
      otherwise: ({ value }) => value('chargeHotC') - 5,
      ...size,
    }),
    dischargeColdC: quantity('No discharge below', '°C', 1, [-50, 10], [-30, -10], sheet, {
      otherwise: -20,
      ...size,
    }),
    dischargeHotC: quantity('No discharge above', '°C', 1, [30, 90], [50, 70], sheet, {
      otherwise: 60,
      ...size,
    }),
    coldCut: yesNo(
      'Low-temperature charge cut',
      'Maker’s data sheet: low-temperature charge protection, with the temperature it is set to.',
    ),
    heater: yesNo('Built-in heater', sheet, { otherwise: 'no' }),
    heaterW: quantity('Heater power', 'W', 5, [1, 1000], [20, 150], sheet, {
      when: [{ field: 'heater', is: ['yes'] }],
      otherwise: 50,
      ...size,
    }),
    heaterStartC: quantity('Heater starting temperature', '°C', 1, [-40, 20], [0, 5], sheet, {
      when: [{ field: 'heater', is: ['yes'] }],
      otherwise: 3,
      ...size,
    }),
    band0To5C: quantity(
      'Charge rate allowed, 0 to 5 °C',
      '×',
      0.05,
      [0, 2],
      [0.05, 0.5],
      'Maker’s data sheet, as a share of C.',
      { otherwise: 'coldBand0To5C', ...size },
    ),
    band5To10C: quantity(
      'Charge rate allowed, 5 to 10 °C',
      '×',
      0.05,
      [0, 2],
      [0.1, 0.5],
      'Maker’s data sheet, as a share of C.',
      { otherwise: 'coldBand5To10C', ...size },
    ),
    leadParallel: yesNo('Allowed in parallel with lead-acid', sheet, { otherwise: 'no', ...size }),
    engineSpace: yesNo('Allowed in an engine space', sheet, { otherwise: 'no', ...size }),
    warning: choice(
      'Warning before it disconnects',
      {
        none: 'None',
        alarm: 'Alarm',
        stop: 'Charge-stop and discharge-stop signal',
      },
      sheet,
      { otherwise: 'none' },
    ),
    communication: choice(
      'Communication',
      { none: 'None', phone: 'Phone', bus: 'Wired data bus', both: 'Phone and wired' },
      sheet,
      { otherwise: 'none', ...size },
    ),
    standbyMa: quantity(
      'Draw of its BMS',
      'mA',
      1,
      [0, 1000],
      [1, 20],
      'Maker’s data sheet, at rest with no phone connected.',
      { otherwise: 'bmsDrawMa', ...size },
    ),
    crankingA: quantity('Cranking current', 'A', 10, [10, 5000], [150, 800], each, {
      when: [{ field: 'purpose', is: ['starter'] }],
    }),
    cycles: quantity('Cycles', '', 100, [1, 20_000], [1500, 5000], sheet, { otherwise: 2000, ...size }),
    cycleDepth: quantity('Depth of those cycles', '%', 5, [5, 100], [70, 100], sheet, {
      otherwise: 80,
      ...size,
    }),
    weightKg: quantity(
      'Weight of each',
      'kg',
      1,
      [0.3, 500],
      (at) => {
        const ah = at.number('ahEach')
        return ah === null ? [10, 30] : [0.09 * ah, 0.14 * ah]
      },
      sheet,
    ),
    widthMm: quantity(
      'Width of each',
      'mm',
      5,
      [20, 3000],
      [220, 520],
      'Maker’s data sheet, with terminals.',
    ),
    depthMm: quantity(
      'Depth of each',
      'mm',
      5,
      [20, 3000],
      [165, 270],
      'Maker’s data sheet, with terminals.',
    ),
    heightMm: quantity(
      'Height of each',
      'mm',
      5,
      [20, 3000],
      [180, 260],
      'Maker’s data sheet, with terminals.',
    ),
    ingress: choice(
      'Protection of the housing',
      { none: 'Nothing stated', splash: 'Splash and dust', immersion: 'Short immersion' },
      'Maker’s data sheet: ingress rating.',
      { otherwise: 'none', ...size },
    ),
    certificates: choice(
      'Certificates',
      { none: 'None', cell: 'For the cells', both: 'For cells and pack' },
      'Maker’s data sheet: transport and safety tests of cells and pack.',
      size,
    ),
    warrantyYears: optional('Warranty', 'years', 1, [0, 30], [2, 10], sheet, { ...size }),
    price: optional('Price of each', 'money', 10, [0, 1_000_000], [300, 2500], 'Price list.', {
      ...size,
    }),
  } satisfies Fields),
  ['purpose', 'nominalV', 'series', 'parallel', 'layout', 'coldLimitC', 'band0To5C', 'band5To10C'],
)
