import { heaterSpanK } from '#core/physics/lfp'
import type { Happening } from '../events'
import type { LfpPlant } from '../plant'
import type { Lfp } from './lfp'
import { Trigger } from './trigger'

/** Delay of a BMS before it acts on voltage, s. */
const voltageDelayS = 2
/** Charge above which a battery that had cut out is switched on again, once its voltage has returned. */
const returnSoc = 0.02
/**
 * Distance from the stop voltages of a hybrid bank at which the lithium reconnects, V at 12 V.
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
    const turn = (): void => {
      const volts = this.cellV()
      const held = !this.heldForVoltage
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
        () => (this.heldForVoltage ? overReturnV - this.loadedV() : this.cellV() - overV),
        turn,
        () => (this.heldForVoltage ? 0 : voltageDelayS),
      ),
    ]
  }

  private temperature({ coldC, coldReturnC, hotC, hotReturnC }: LfpPlant['bms']): Trigger[] {
    const turn = (): void => {
      this.heldForCold = !this.heldForCold
      this.setGate()
      this.tell({
        kind: 'charge-gate',
        open: !this.heldForCold,
        cause: 'temperature',
        celsius: this.lfp.tempC,
      })
    }
    const outside = (): number =>
      Math.max(coldC === null ? -1 : coldC - this.lfp.endTempC, this.lfp.endTempC - hotC)
    const inside = (): number =>
      Math.min(coldC === null ? 1 : this.lfp.endTempC - coldReturnC, hotReturnC - this.lfp.endTempC)
    return [new Trigger(() => (this.heldForCold ? inside() : outside()), turn)]
  }

  private cutOut({ underV, underReturnV, maxDischargeA, overCurrentS }: LfpPlant['bms']): Trigger[] {
    const { lfp } = this
    const cut = (cause: 'empty' | 'current'): void => {
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
      this.tell({ kind: 'cut-out', out: false, volts: this.busV() })
    }
    const isEmpty = (): number => (lfp.endSoc <= 0 ? 1 : underV - this.busV())
    const returns = (): number =>
      this.stopped === 'discharge' ? -1 : Math.min(lfp.endSoc - returnSoc, lfp.restV - underReturnV)
    return [
      new Trigger(
        () => (lfp.dischargeGate ? isEmpty() : returns()),
        () => {
          if (lfp.dischargeGate) cut('empty')
          else back()
        },
        () => (lfp.dischargeGate ? voltageDelayS : 0),
      ),
      new Trigger(
        () => (lfp.dischargeGate ? -lfp.endAmps - maxDischargeA : -1),
        () => {
          cut('current')
        },
        () => overCurrentS,
      ),
    ]
  }

  private heater({ startC }: NonNullable<LfpPlant['heater']>, wantsCharge: () => boolean): Trigger[] {
    const { lfp } = this
    const turn = (): void => {
      lfp.heating = !lfp.heating
      this.tell({ kind: 'heater', on: lfp.heating })
    }
    const isCold = (): number => (wantsCharge() ? startC - lfp.endTempC : -1)
    const isWarm = (): number => (wantsCharge() ? lfp.endTempC - startC - heaterSpanK : 1)
    return [new Trigger(() => (lfp.heating ? isWarm() : isCold()), turn)]
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
