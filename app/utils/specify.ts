import type { ListedPart } from '#core/job/specified'
import { formatQuantity } from '#core/units/format'

/** A part to be bought in a line: how many, what, and for how much. */
export const partWords = ({ quantity, unit, name, price }: ListedPart): string =>
  `${unit === 'm' ? `${quantity} m of ` : quantity > 1 ? `${quantity} × ` : ''}${name}, ${price === null ? 'price to be asked' : formatQuantity(price * quantity, 'money')}`
