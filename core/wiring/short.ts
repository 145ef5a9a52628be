import type { ShopRules } from '#core/rules/rules'

/** The part of a battery's resistance that acts in the first milliseconds of a short, Ω, by the shop's share. */
export const faultResistanceOhm = (ohm: number, { ohmicShare }: ShopRules): number => (ohm * ohmicShare) / 100
