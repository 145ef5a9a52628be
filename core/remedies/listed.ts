import type { JobDocument } from '#core/job/document'
import type { ListedPart } from '#core/job/specified'
import type { ShelfPart } from '#core/shelf/kinds'
import type { Supply } from './remedy'

/** A part of the shelf as a list names it. */
export const listed = (
  part: ShelfPart,
  quantity = 1,
  unit: '' | 'm' = '',
  price = part.values.price,
): ListedPart => ({
  kind: part.kind,
  code: part.code,
  version: part.version,
  name: part.name,
  quantity,
  unit,
  price: typeof price === 'number' ? price : null,
})

/** A thing that is needed and not on the shelf: bought elsewhere, its price to be asked. */
export const unlisted = (name: string, quantity = 1): ListedPart => ({
  kind: null,
  code: '',
  version: 0,
  name,
  quantity,
  unit: '',
  price: null,
})

/** This many metres of cable of at least a size, the thinnest that will do. */
export function cableByTheMetre(areaMm2: number, metres: number, shelf: readonly ShelfPart[]): Supply {
  const area = ({ values }: ShelfPart): number => Number(values.areaMm2)
  const [cable] = shelf
    .filter((part) => part.kind === 'conductors' && area(part) >= areaMm2)
    .sort((a, b) => area(a) - area(b) || Number(a.values.pricePerM) - Number(b.values.pricePerM))
  const length = Math.ceil(metres)
  return {
    parts: [
      cable ? listed(cable, length, 'm', cable.values.pricePerM) : unlisted(`Cable ${areaMm2} mm²`, length),
    ],
    values: {},
  }
}

/** Batteries of the candidate's kind, at the price in the job, else at the one on the shelf. */
export function batteries(job: JobDocument, shelf: readonly ShelfPart[], quantity: number): ListedPart[] {
  if (quantity === 0) return []
  const { shelf: ref, name, price } = job.candidate
  const part = shelf.find(({ kind, code }) => kind === 'batteries' && code === ref?.code)
  const own = price?.value != null && price.value > 0 ? price.value : null
  if (!part) return [{ ...unlisted(name ?? 'New battery', quantity), price: own }]
  const asListed = listed(part, quantity)
  return [{ ...asListed, price: own ?? asListed.price }]
}
