import { joinText } from '#core/units/format'
import { elementAt, fieldOf } from '#core/collections/held'
import { metric, shownUnit, type DisplayUnits } from './display'
import { areaByAwg, spellings, type Unit } from './units'

export type Parsed =
  { readonly ok: true; readonly value: number } | { readonly ok: false; readonly error: string }

const refuse = (error: string): Parsed => ({ ok: false, error })

/**
 * Reads a number as people write it: `14.4`, `14,4`, `1.200,5`, `1,200.5`, `−4`, `1e3`.
 * One lone comma is a decimal comma unless exactly three digits follow a number of one to three
 * digits other than 0 (`1,200` is twelve hundred). Returns null when it is not one finite number.
 */
export function parseNumber(text: string): number | null {
  const t = text
    .trim()
    .replace(/[−–]/g, '-')
    .replace(/[\s' ]/g, '')
  if (!/^[+-]?[\d.,]*\d[\d.,]*(e[+-]?\d+)?$/i.test(t)) return null
  const lastComma = t.lastIndexOf(',')
  const lastDot = t.lastIndexOf('.')
  let normal = t
  if (lastComma >= 0 && lastDot >= 0) {
    normal = lastComma > lastDot ? t.replace(/\./g, '').replace(',', '.') : t.replace(/,/g, '')
  } else if (lastComma >= 0) {
    normal = /^[+-]?[1-9]\d{0,2}(,\d{3})+$/.test(t) ? t.replace(/,/g, '') : t.replace(',', '.')
  }
  const value = Number(normal)
  return Number.isFinite(value) ? value : null
}

/**
 * Reads a quantity with or without its unit and gives it in the stored unit.
 * Understands other units of the same family (`50 ft` for m, `-4 F` for °C), trade wire sizes
 * (`10 AWG`, `2/0`) and, for areas, conductors side by side (`2x16`). Anything else is refused
 * with the words to show next to the field. A number without a unit is one of the shop's own units.
 *
 * @example parseQuantity('14,4 V', 'V') // { ok: true, value: 14.4 }
 * @example parseQuantity('50 ft', 'm') // { ok: true, value: 15.24 }
 */
export function parseQuantity(text: string, unit: Unit, units: DisplayUnits = metric): Parsed {
  const t = text.trim().replace(/[−–]/g, '-').replace(roughly, '')
  if (t === '') return refuse('Nothing was entered')
  if (t.length > 40) return refuse('Too long for one value')

  const wire = unit === 'mm²' ? parseWire(t, units) : null
  if (wire) return wire

  const range = /^([\d.,]+)\s*(?:-|to|\.\.)\s*([\d.,]+)\s*[^\d]*$/i.exec(t)
  if (range) return refuse(`${range[1]} to ${range[2]} is a range. Enter one value, or leave it unknown`)
  const each = /^(\d{1,2})\s*[x×*]\s*([\d.,]+)/i.exec(t)
  if (each) return refuse(`Enter the size of one, ${each[2]}, and the count in its own field`)

  const parts = /^([+-]?[\d.,'\s]*\d[\d.,]*(?:e[+-]?\d+)?)\s*(.*)$/i.exec(t)
  const number = parts && parseNumber(elementAt(parts, 1))
  if (!parts || number === null) {
    return refuse(
      /\de[+-]?\d+/i.test(t) ? 'That number is too large' : `Not a number${unit ? ` of ${unit}` : ''}`,
    )
  }
  const written = elementAt(parts, 2).toLowerCase().replace(/\s/g, '').replace('ohms', 'ohm')
  const plainUnit = shownUnit(unit, units)
  if (written === '')
    return { ok: true, value: plainUnit ? tidy(number * plainUnit.factor + plainUnit.offset) : number }
  if (unit === 'money' && written === units.currency.toLowerCase()) return { ok: true, value: number }
  return inUnit(number, written, elementAt(parts, 2).trim(), unit)
}

/** A wire by its trade size, or several side by side; null for anything else. */
function parseWire(t: string, units: DisplayUnits): Parsed | null {
  const awg =
    /^(?:awg\s*)?(\d\/0|0{1,4}|\d{1,2})\s*(?:awg|ga)\s*$/i.exec(t) ??
    /^awg\s*(\d\/0|0{1,4}|\d{1,2})$/i.exec(t) ??
    /^(\d\/0)$/.exec(t)
  if (awg) {
    const area = areaByAwg[elementAt(awg, 1)]
    return area === undefined
      ? refuse(`${awg[1]} AWG is not in the table of conductors`)
      : { ok: true, value: area }
  }
  if (units.system === 'imperial' && Object.hasOwn(areaByAwg, t))
    return { ok: true, value: fieldOf(areaByAwg, t) }
  const sideBySide = /^(\d{1,2})\s*[x×*]\s*(.+)$/i.exec(t)
  if (sideBySide) {
    const one = parseQuantity(elementAt(sideBySide, 2), 'mm²', units)
    return one.ok ? { ok: true, value: one.value * Number(sideBySide[1]) } : one
  }
  return null
}

/** A number in a unit of the same family. @param as the unit as it was typed */
function inUnit(number: number, written: string, as: string, unit: Unit): Parsed {
  const family: Readonly<Record<string, { readonly factor: number; readonly offset?: number }>> =
    spellings[unit]
  const spelling = Object.hasOwn(family, written) ? family[written] : undefined
  if (!spelling && unit === 'Ah' && /^k?wh$/.test(written))
    return refuse(energyWords(number * (written === 'kwh' ? 1000 : 1)))
  if (!spelling) return refuse(unit ? `“${as}” is not a unit for ${unit}` : 'A plain number is wanted here')
  return { ok: true, value: tidy(number * spelling.factor + (spelling.offset ?? 0)) }
}

/** Words that say that a value is not exact: it is taken unchanged. */
const roughly = /^(?:ca\.?|circa|approx\.?|about|around|~|≈)\s*(?=[\d+-])/i

/** Nominal voltage of a lithium battery of 12 V, V. */
const lfpV = 12.8
const energyWords = (wattHours: number): string =>
  joinText(
    'That is energy. Enter ampere-hours: ',
    `${wattHours} Wh ÷ ${lfpV} V = ${Math.round(wattHours / lfpV)} Ah at 12 V`,
  )

/** Takes off the noise that unit factors leave in the last binary digits. */
const tidy = (value: number): number => Number(value.toPrecision(12))
