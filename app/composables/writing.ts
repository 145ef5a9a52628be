import { computed } from 'vue'
import { unitName } from '#core/units/display'
import { formatNumber, formatQuantity } from '#core/units/format'
import { parseQuantity, type Parsed } from '#core/units/parse'
import type { Unit } from '#core/units/units'
import { useShop } from '../stores/shop'

/** How quantities are written and read in this shop. */
export function useWriting() {
  const store = useShop()
  return {
    /** A value with its unit; with every digit entered where that is asked for. */
    q: (value: number, unit: Unit, exact?: boolean): string =>
      formatQuantity(value, unit, store.shop.units, exact),
    /** The number alone. */
    n: (value: number, unit: Unit): string => formatNumber(value, unit, store.shop.units),
    units: computed(() => store.shop.units),
    unitName: (unit: Unit): string => unitName(unit, store.shop.units),
    parse: (text: string, unit: Unit): Parsed => parseQuantity(text, unit, store.shop.units),
  }
}
