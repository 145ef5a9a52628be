import type { ListedPart } from '#core/job/specified'
import type { Write } from '#core/units/format'

const amountOf = ({ quantity, unit }: ListedPart): string =>
  unit === 'm' ? `${quantity} m of ` : quantity > 1 ? `${quantity} × ` : ''

/** A part to be bought in a line: how many, what, and for how much. */
export const partWords = (part: ListedPart, q: Write): string =>
  `${amountOf(part)}${part.name}, ${part.price === null ? 'ask for a price' : q(part.price * part.quantity, 'money')}`
