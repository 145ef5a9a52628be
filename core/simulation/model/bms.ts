import type { Happening } from '../events'
import type { LfpPlant } from '../plant'
import type { Lfp } from './lfp'
import { Trigger } from './trigger'

/** Delay of a BMS before it acts on voltage, s. */
const voltageDelayS = 2
/** Charge above which a battery that had cut out is switched on again, once its voltage has returned. */
const returnSoc = 0.02
/** A heater is switched off so many degrees above where it starts, K. */
const heaterSpanK = 4
/**
 * Voltages at which the stops of a hybrid bank let the lithium back, from where they took it off, V at 12 V.
 */
const chargeStopReturnV = 0.6
const dischargeStopReturnV = 0.8

/**
 * The BMS of a lithium battery as a state machine: thresholds, delays and returns for voltage, current and
 * temperature, charge and discharge apart; with the heater it switches and the stops of a hybrid bank.
 */
export class Bms {
  readonly triggers: readonly Trigger[]
  private heldForVoltage = false
  private heldForCold = false
  private stopped: 'charge' | 'discharge' | null = null

  /**
   * @param busV voltage at the end of the step that is tried, V
   * @param wantsCharge whether a source would charge if it were let
   */
  constructor(
    private readonly lfp: Lfp,
    private readonly busV: () => number,
    wantsCharge: () => boolean,
    private readonly tell: (event: Happening) => void,
  ) {
    const { bms, heater, stops, nominalV } = lfp.plant
    const scale = nominalV / 12
    this.triggers = [
      ...this.overVoltage(bms),
      ...this.temperature(bms),
      ...this.cutOut(bms),
      ...(heater ? this.heater(heater, wantsCharge) : []),
      ...(stops ? this.stops(stops, scale) : []),
    ]
  }

  /** Whether it refuses a charge because the cells are too cold or too hot. */
  get refusesForCold(): boolean {
    return this.heldForCold
  }

  /** Voltage of the cells as it measures it: the bus, or at rest behind a shut gate. */
  private cellV(): number {
    return this.lfp.chargeGate ? Math.max(this.busV(), this.lfp.restV) : this.lfp.restV
  }
  private loadedV(): number {
    return this.lfp.restV + Math.min(0, this.lfp.endAmps) * this.lfp.ohmNow
  }
  private setGate(): void {
    this.lfp.chargeGate = !this.heldForVoltage && !this.heldForCold && this.stopped !== 'charge'
  }

  private overVoltage({ overV, overReturnV }: LfpPlant['bms']): Trigger[] {
    const hold = (held: boolean) => (): void => {
      const volts = this.cellV()
      this.heldForVoltage = held
      this.setGate()
      this.tell({
        kind: 'charge-gate',
        open: !held,
        cause: 'voltage',
        volts,
        limitV: overV,
      })
    }
    return [
      new Trigger(
        () => (this.heldForVoltage ? -1 : this.cellV() - overV),
        hold(true),
        () => voltageDelayS,
      ),
      new Trigger(() => (this.heldForVoltage ? overReturnV - this.loadedV() : -1), hold(false)),
    ]
  }

  private temperature({ coldC, coldReturnC, hotC, hotReturnC }: LfpPlant['bms']): Trigger[] {
    const hold = (held: boolean) => (): void => {
      this.heldForCold = held
      this.setGate()
      this.tell({
        kind: 'charge-gate',
        open: !held,
        cause: 'temperature',
        celsius: this.lfp.tempC,
      })
    }
    const outside = (): number =>
      Math.max(coldC === null ? -1 : coldC - this.lfp.endTempC, this.lfp.endTempC - hotC)
    const inside = (): number =>
      Math.min(coldC === null ? 1 : this.lfp.endTempC - coldReturnC, hotReturnC - this.lfp.endTempC)
    return [
      new Trigger(() => (this.heldForCold ? -1 : outside()), hold(true)),
      new Trigger(() => (this.heldForCold ? inside() : -1), hold(false)),
    ]
  }

  private cutOut({ underV, underReturnV, maxDischargeA, overCurrentS }: LfpPlant['bms']): Trigger[] {
    const { lfp } = this
    const cut = (cause: 'empty' | 'current') => (): void => {
      lfp.dischargeGate = false
      this.tell({
        kind: 'cut-out',
        out: true,
        cause,
        volts: this.busV(),
        amps: -lfp.endAmps,
        limitA: maxDischargeA,
      })
    }
    const back = (): void => {
      lfp.dischargeGate = true
      this.tell({
        kind: 'cut-out',
        out: false,
        volts: this.busV(),
      })
    }
    const returns = (): number => Math.min(lfp.endSoc - returnSoc, lfp.restV - underReturnV)
    return [
      new Trigger(
        () => (lfp.dischargeGate ? (lfp.endSoc <= 0 ? 1 : underV - this.busV()) : -1),
        cut('empty'),
        () => voltageDelayS,
      ),
      new Trigger(
        () => (lfp.dischargeGate ? -lfp.endAmps - maxDischargeA : -1),
        cut('current'),
        () => overCurrentS,
      ),
      new Trigger(() => (lfp.dischargeGate || this.stopped === 'discharge' ? -1 : returns()), back),
    ]
  }

  private heater({ startC }: NonNullable<LfpPlant['heater']>, wantsCharge: () => boolean): Trigger[] {
    const { lfp } = this
    const turn = (on: boolean) => (): void => {
      lfp.heating = on
      this.tell({ kind: 'heater', on })
    }
    return [
      new Trigger(() => (lfp.heating || !wantsCharge() ? -1 : startC - lfp.endTempC), turn(true)),
      new Trigger(
        () => (!lfp.heating ? -1 : wantsCharge() ? lfp.endTempC - startC - heaterSpanK : 1),
        turn(false),
      ),
    ]
  }

  private stops({ chargeV, dischargeV }: NonNullable<LfpPlant['stops']>, scale: number): Trigger[] {
    const { lfp } = this
    const stop = (of: 'charge' | 'discharge', off: boolean) => (): void => {
      this.stopped = off ? of : null
      this.setGate()
      if (of === 'discharge') lfp.dischargeGate = !off
      this.tell({ kind: 'stop', of, off, volts: this.busV() })
    }
    const chargeReturnV = chargeV - chargeStopReturnV * scale
    const dischargeReturnV = dischargeV + dischargeStopReturnV * scale
    return [
      new Trigger(() => (this.stopped ? -1 : this.busV() - chargeV), stop('charge', true)),
      new Trigger(() => (this.stopped === 'charge' ? chargeReturnV - lfp.restV : -1), stop('charge', false)),
      new Trigger(() => (this.stopped ? -1 : dischargeV - this.busV()), stop('discharge', true)),
      new Trigger(
        () => (this.stopped === 'discharge' ? this.busV() - dischargeReturnV : -1),
        stop('discharge', false),
      ),
    ]
  }
}
