import { openCircuitV } from '#core/physics/lfp'
import { worstShare } from '#core/physics/sharing'
import type { ShopRules } from '#core/rules/rules'
import type { View } from './scene'

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
  get lowV(): number {
    return this.each.chargeLowV * this.each.series
  }
  get highV(): number {
    return this.each.chargeHighV * this.each.series
  }
  /**
   * Where a setting is aimed, V to two decimals: the maker's recommended voltage, else the middle of the
   * window.
   */
  get middleV(): number {
    return Math.round(this.each.chargeRecommendedV * this.each.series * 100) / 100
  }
  get absoluteV(): number {
    return this.each.absoluteHighV * this.each.series
  }
  get bmsOverV(): number {
    return this.each.bmsOverV * this.each.series
  }
  get bmsUnderV(): number {
    return this.each.bmsUnderV * this.each.series
  }
  get maxFloatV(): number {
    return this.each.maxFloatV * this.each.series
  }
  get balanceStartV(): number {
    return this.rules.balanceStartV * this.scale
  }
  get recommendedA(): number {
    return this.each.recommendedChargeA * this.each.parallel
  }
  /** What it should be charged with by the shop's school, A: the maker's recommended figure, or the largest. */
  get wishedA(): number {
    return this.rules.chargeRateSchool === 'largest' ? this.largestA : this.recommendedA
  }
  get largestA(): number {
    return Math.max(this.each.largestChargeA, this.each.recommendedChargeA) * this.each.parallel
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
