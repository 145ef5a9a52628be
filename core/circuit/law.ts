/**
 * Electrical laws of units: the current out of each terminal as a function of the terminal voltages. Every law is
 * continuous. It can be written for a general circuit solver too, which then solves the same law on its own.
 */

/** Voltages at the terminals of a unit, V, in the order of its law. */
type Volts = readonly number[]

export interface Law {
  /** How many terminals it has. */
  readonly terminals: 2 | 4
  /** Current out of each terminal, A; their sum is zero. */
  readonly amps: (v: Volts) => readonly number[]
  /** Change of each of these currents with each voltage, A/V: a row a current. */
  readonly slopes: (v: Volts) => readonly (readonly number[])[]
  /**
   * The same as currents of behavioural sources, each from one of its terminals through the source to another.
   * @param v the name of a terminal's voltage in a formula: `V(bank_plus)`
   */
  readonly behaves: (v: readonly string[]) => readonly Behaviour[]
}

/** A current source whose current, A, is a formula: it flows into terminal `into` out of terminal `from`. */
interface Behaviour {
  readonly from: number
  readonly into: number
  readonly formula: string
}

const clamp = (value: number, least: number, most: number): number => Math.min(most, Math.max(least, value))
/** Numbers as they are written in a formula: all their digits. */
const n = (value: number): string => value.toPrecision(15)

/** A law of two terminals: the current out of the first by the voltage between them. */
function between(
  amps: (u: number) => number,
  slope: (u: number) => number,
  formula: (u: string) => string,
): Law {
  return {
    terminals: 2,
    amps([plus = 0, minus = 0]) {
      const i = amps(plus - minus)
      return [i, -i]
    },
    slopes([plus = 0, minus = 0]) {
      const g = slope(plus - minus)
      return [
        [g, -g],
        [-g, g],
      ]
    },
    behaves: ([plus, minus]) => [{ from: 1, into: 0, formula: formula(`(${plus}-${minus})`) }],
  }
}

/**
 * A battery: its electromotive force, V, behind a resistance, Ω.
 * @param chargingOhm resistance against charging, Ω: lead that is nearly full takes little
 */
export const battery = (emfV: number, ohm: number, chargingOhm = ohm): Law =>
  between(
    (u) => (emfV - u) / (u > emfV ? chargingOhm : ohm),
    (u) => -1 / (u > emfV ? chargingOhm : ohm),
    (u) =>
      chargingOhm === ohm
        ? `(${n(emfV)}-${u})/${n(ohm)}`
        : `max(0,${n(emfV)}-${u})/${n(ohm)}+min(0,${n(emfV)}-${u})/${n(chargingOhm)}`,
  )

/** Leakage of a blocking unit, A/V. Without it, a node that is joined only by this unit would have no voltage. */
const leak = 1e-6

/**
 * A source that holds a voltage up to its largest current, and takes no current back.
 * @param setV the voltage it holds, V, at no current
 * @param mostA its largest current, A
 * @param ohm slope of its voltage, V/A: its regulator
 */
export const held = (setV: number, mostA: number, ohm: number): Law =>
  between(
    (u) => clamp((setV - u) / ohm, 0, mostA) - leak * u,
    (u) => ((setV - u) / ohm > 0 && (setV - u) / ohm < mostA ? -1 / ohm : 0) - leak,
    (u) => `min(${n(mostA)},max(0,(${n(setV)}-${u})/${n(ohm)}))-${n(leak)}*${u}`,
  )

/** A load of constant current, A, that fades below a voltage, V, as lamps and motors do. */
export const current = (amps: number, fadesBelowV: number): Law =>
  between(
    (u) => -amps * clamp(u / fadesBelowV, 0, 1),
    (u) => (u > 0 && u < fadesBelowV ? -amps / fadesBelowV : 0),
    (u) => `-${n(amps)}*min(1,max(0,${u}/${n(fadesBelowV)}))`,
  )

/** A resistance, Ω. */
export const resistance = (ohm: number): Law =>
  between(
    (u) => -u / ohm,
    () => -1 / ohm,
    (u) => `-${u}/${n(ohm)}`,
  )

/** A diode with a constant drop, V, and a resistance, Ω. No current flows back. */
export const diode = (dropV: number, ohm: number): Law =>
  between(
    (u) => -Math.max(0, (u - dropV) / ohm) - leak * u,
    (u) => (u > dropV ? -1 / ohm : 0) - leak,
    (u) => `-max(0,(${u}-${n(dropV)})/${n(ohm)})-${n(leak)}*${u}`,
  )

/**
 * Share of its power that a unit with a lowest voltage takes: all of it from `fullV` up, and less in proportion
 * below, down to zero at `bandV` under it. So the unit settles at the power that the cable can carry. The line
 * continues below zero, so that a solver that passes there returns. The source must rest higher, or the case must
 * say that the unit is off.
 */
const shareOf = (u: number, fullV: number, bandV: number): number => Math.min(1, (u - fullV) / bandV + 1)
const shareSlope = (u: number, fullV: number, bandV: number): number => (u < fullV ? 1 / bandV : 0)
const shareFormula = (u: string, fullV: number, bandV: number): string =>
  `min(1,(${u}-${n(fullV)})/${n(bandV)}+1)`

/**
 * A load of constant power, W: an inverter.
 * @param fullV the lowest voltage at which it takes all of it, V
 * @param bandV over which it takes its load back below, V
 */
export const power = (watts: number, fullV: number, bandV: number): Law =>
  between(
    (u) => (-watts / Math.max(u, fullV)) * shareOf(u, fullV, bandV),
    (u) => (u >= fullV ? watts / (u * u) : (-watts / fullV) * shareSlope(u, fullV, bandV)),
    (u) => `-${n(watts)}/max(${u},${n(fullV)})*${shareFormula(u, fullV, bandV)}`,
  )

export interface Converter {
  /** Voltage it holds at its output, V, and the most it gives, A. */
  readonly setV: number
  readonly mostA: number
  /** By how much its output gives way, V/A. */
  readonly ohm: number
  /** 0 to 1. */
  readonly efficiency: number
  /** The lowest input at which it gives all, V, and the band below over which it gives less, V. */
  readonly fullV: number
  readonly bandV: number
}

/**
 * A DC-DC charger: it holds a voltage at its output as long as its current reaches, and draws the power of it,
 * through its efficiency, from its input; under its lowest input it gives less. Terminals: output plus and minus,
 * input plus and minus.
 */
export function converter(unit: Converter): Law {
  const { setV, mostA, ohm, efficiency, fullV, bandV } = unit
  const requestedA = (out: number): number => clamp((setV - out) / ohm, 0, mostA)
  const gives = (out: number, input: number): number => requestedA(out) * shareOf(input, fullV, bandV)
  /** Amperes of the input for each of the output. */
  const ratio = (out: number, input: number): number =>
    Math.max(0, out) / (efficiency * Math.max(input, fullV))
  return {
    terminals: 4,
    amps([outPlus = 0, outMinus = 0, inPlus = 0, inMinus = 0]) {
      const [out, input] = [outPlus - outMinus, inPlus - inMinus]
      const given = gives(out, input)
      const taken = given * ratio(out, input)
      return [given, -given, -taken, taken]
    },
    slopes([outPlus = 0, outMinus = 0, inPlus = 0, inMinus = 0]) {
      const [out, input] = [outPlus - outMinus, inPlus - inMinus]
      const given = gives(out, input)
      const givenByOut = outputSlope(unit, out) * shareOf(input, fullV, bandV)
      const givenByIn = requestedA(out) * shareSlope(input, fullV, bandV)
      const each = ratio(out, input)
      const takenByOut = out > 0 ? givenByOut * each + (given * each) / out : 0
      const takenByIn = givenByIn * each - (input >= fullV ? (given * each) / input : 0)
      const row = (byOut: number, byIn: number): number[] => [byOut, -byOut, byIn, -byIn]
      return [
        row(givenByOut, givenByIn),
        row(-givenByOut, -givenByIn),
        row(-takenByOut, -takenByIn),
        row(takenByOut, takenByIn),
      ]
    },
    behaves: ([outPlus = 0, outMinus = 0, inPlus = 0, inMinus = 0]) =>
      converterFormulas(unit, `(${outPlus}-${outMinus})`, `(${inPlus}-${inMinus})`),
  }
}

/** Change of the current a converter would give by the voltage at its output, A/V: none at either of its limits. */
function outputSlope({ setV, mostA, ohm }: Converter, out: number): number {
  const free = (setV - out) / ohm
  return free > 0 && free < mostA ? -1 / ohm : 0
}

/** The currents of a converter in the words of a general circuit solver. */
function converterFormulas(unit: Converter, out: string, input: string): ReturnType<Law['behaves']> {
  const { setV, mostA, ohm, efficiency, fullV, bandV } = unit
  const free = `min(${n(mostA)},max(0,(${n(setV)}-${out})/${n(ohm)}))`
  const given = `${free}*${shareFormula(input, fullV, bandV)}`
  const each = `max(0,${out})/(${n(efficiency)}*max(${input},${n(fullV)}))`
  return [
    { from: 1, into: 0, formula: given },
    { from: 2, into: 3, formula: `${given}*${each}` },
  ]
}
