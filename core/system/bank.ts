import { openCircuitV } from '#core/physics/lfp'
import { worstShare } from '#core/physics/sharing'
import type { ShopRules } from '#core/rules/rules'
import type { View } from './scene'
import { windowOf, type ChargeWindow } from './window'

/** The candidate bank as one battery, from the data of each and the count in series and parallel. */
export class Bank {
  constructor(
    readonly each: View<'candidate'>,
    private readonly rules: ShopRules,
  ) {}

  get nominalV(): number {
    return Number(this.each.nominalV) * this.each.series
  }
  /** Times the 12 V figures of the shop rules. */
  get scale(): number {
    return this.nominalV / 12
  }
  get ah(): number {
    return this.each.ahEach * this.each.parallel
  }
  /** Charge window of one battery. */
  private get charge(): ChargeWindow {
    return windowOf(this.each)
  }
  get lowV(): number {
    return this.charge.lowV * this.each.series
  }
  get highV(): number {
    return this.charge.highV * this.each.series
  }
  /** The field of its data which the highest charge voltage comes from. */
  get highField(): ChargeWindow['highField'] {
    return this.charge.highField
  }
  /** Where a setting is aimed, V to two decimals. */
  get middleV(): number {
    return Math.round(this.charge.middleV * this.each.series * 100) / 100
  }
  get absoluteV(): number {
    return this.charge.absoluteV * this.each.series
  }
  get bmsOverV(): number {
    return this.charge.bmsOverV * this.each.series
  }
  get bmsUnderV(): number {
    return this.each.bmsUnderV * this.each.series
  }
  get maxFloatV(): number {
    return this.charge.maxFloatV * this.each.series
  }
  get balanceStartV(): number {
    return this.rules.balanceStartV * this.scale
  }
  /** Never more than its largest, A: where a maker gives that alone, the shop's usual rate may be too much. */
  get recommendedA(): number {
    return Math.min(this.each.recommendedChargeA, this.each.largestChargeA) * this.each.parallel
  }
  /** Charge current by the shop's school, A: the maker's recommended figure, or the largest. */
  get targetA(): number {
    return this.each[this.targetField] * this.each.parallel
  }
  /** The field of its data which that comes from. */
  get targetField(): 'recommendedChargeA' | 'largestChargeA' {
    const { recommendedChargeA, largestChargeA } = this.each
    const isLess = recommendedChargeA <= largestChargeA
    return this.rules.chargeRateSchool !== 'largest' && isLess ? 'recommendedChargeA' : 'largestChargeA'
  }
  get largestA(): number {
    return this.each.largestChargeA * this.each.parallel
  }
  /**
   * Share of the BMS rating each battery of a parallel bank can be counted on for: the shop's, or less where
   * the cabling is worse.
   */
  get sharing(): number {
    const { parallel, layout } = this.each
    return parallel > 1
      ? Math.min(
          this.rules.sharing / 100,
          worstShare(parallel, this.stringOhm, this.rules.bankLinkMohm / 1000, layout),
        )
      : 1
  }
  private get stringOhm(): number {
    return (this.each.resistanceMohm / 1000) * this.each.series
  }
  get continuousA(): number {
    return this.each.continuousA * this.each.parallel * this.sharing
  }
  get peakA(): number {
    return Math.max(this.each.peakA, this.each.continuousA) * this.each.parallel * this.sharing
  }
  get count(): number {
    return this.each.series * this.each.parallel
  }
  get kg(): number {
    return this.each.weightKg * this.count
  }
  /**
   * Lowest temperature at which it may be charged, °C: the maker's, or not below 0 °C where the shop holds to
   * that.
   */
  get coldLimitC(): number {
    return this.rules.coldSchool === 'zero' ? Math.max(0, this.each.coldLimitC) : this.each.coldLimitC
  }
  get ohm(): number {
    return this.stringOhm / this.each.parallel
  }
  get tailA(): number {
    return this.rules.tailRateC * this.ah
  }
  ocv(soc: number): number {
    return openCircuitV(soc, this.nominalV)
  }
}
