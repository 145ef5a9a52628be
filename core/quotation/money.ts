import {
  dinero,
  halfAwayFromZero,
  multiply,
  toSnapshot,
  transformScale,
  type Dinero,
  type DineroCurrency,
} from 'dinero.js'

/** A currency by its ISO 4217 code. */
export type CurrencyCode = string
/** An amount of money in the smallest unit of its currency: cents. */
export type Minor = number

/** Most decimals of a price, a quantity or a percentage. */
const mostDecimals = 6

/** Currencies that a quotation can be in. */
export const currencyCodes: readonly CurrencyCode[] = Intl.supportedValuesOf('currency')
/** Ways to write numbers and dates. */
export const locales = {
  'en-GB': '1,234.50',
  'de-DE': '1.234,50',
  'fr-FR': '1 234,50',
  'de-CH': '1’234.50',
} as const
export type Locale = keyof typeof locales

const knownDecimals = new Map<CurrencyCode, number>()
/** Decimals of a currency: 2 for most, 0 or 3 for some. Looked up once: every amount of every line asks. */
function decimalsOf(currency: CurrencyCode): number {
  const known = knownDecimals.get(currency)
  if (known !== undefined) return known
  const format = new Intl.NumberFormat('en', { style: 'currency', currency })
  const decimals = format.resolvedOptions().maximumFractionDigits ?? 2
  knownDecimals.set(currency, decimals)
  return decimals
}

const currencyOf = (code: CurrencyCode): DineroCurrency<number> => ({
  code,
  base: 10,
  exponent: decimalsOf(code),
})

interface Decimal {
  readonly amount: number
  readonly scale: number
}
/** A number as a whole amount and its decimals: 1.005 is 1005 with three. Exact for typed numbers. */
function decimalOf(value: number): Decimal {
  const text = value.toFixed(mostDecimals).replace(/\.?0+$/, '')
  const scale = text.split('.')[1]?.length ?? 0
  return { amount: Number(text.replace('.', '')), scale }
}
const percentOf = (percent: number): Decimal => {
  const { amount, scale } = decimalOf(percent)
  return { amount, scale: scale + 2 }
}

/** A price as an amount, rounded half up to the smallest unit. @param price in whole units of the currency */
export function minorOf(price: number, currency: CurrencyCode): Minor {
  const { amount, scale } = decimalOf(price)
  return rounded(dinero({ amount, currency: currencyOf(currency), scale }), currency)
}

const rounded = (money: Dinero<number>, currency: CurrencyCode): Minor =>
  toSnapshot(transformScale(money, decimalsOf(currency), halfAwayFromZero)).amount

const times = (amount: Minor, factor: Decimal, currency: CurrencyCode): Minor =>
  rounded(multiply(dinero({ amount, currency: currencyOf(currency) }), factor), currency)

/** An amount some times, rounded half up. */
export const multiplied = (amount: Minor, quantity: number, currency: CurrencyCode): Minor =>
  times(amount, decimalOf(quantity), currency)

/** A share of an amount, rounded half up. */
export const share = (amount: Minor, percent: number, currency: CurrencyCode): Minor =>
  times(amount, percentOf(percent), currency)

/**
 * An amount with a decimal point and all its decimals, for fields and tables. @example plainMoney(120, 'EUR') //
 * '1.20'
 */
export function plainMoney(amount: Minor, currency: CurrencyCode): string {
  const decimals = decimalsOf(currency)
  return (amount / 10 ** decimals).toFixed(decimals)
}

/** An amount as people write it. @example formatMoney(123450, 'EUR', 'de-DE') // '1.234,50 €' */
export const formatMoney = (amount: Minor, currency: CurrencyCode, locale: Locale): string =>
  new Intl.NumberFormat(locale, { style: 'currency', currency }).format(amount / 10 ** decimalsOf(currency))

/** A percentage as people write it. @example formatPercent(19, 'de-DE') // '19 %' */
export const formatPercent = (percent: number, locale: Locale): string =>
  new Intl.NumberFormat(locale, { style: 'percent', maximumFractionDigits: 2 }).format(percent / 100)

/** A quantity as people write it. */
export const formatCount = (quantity: number, locale: Locale): string =>
  new Intl.NumberFormat(locale, { maximumFractionDigits: 2 }).format(quantity)
