import type { ListedPart } from '#core/job/specified'
import type { Write } from '#core/units/format'

const amountOf = ({ quantity, unit }: ListedPart): string =>
  unit === 'm' ? `${quantity} m of ` : quantity > 1 ? `${quantity} × ` : ''

/** A part to buy in a line: quantity, name and price. */
export const partWords = (part: ListedPart, q: Write): string =>
  `${amountOf(part)}${part.name}, ${part.price === null ? 'ask for a price' : q(part.price * part.quantity, 'money')}`
