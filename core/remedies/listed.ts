import type { JobDocument } from '#core/job/document'
import type { ListedPart } from '#core/job/specified'
import type { ShelfPart } from '#core/shelf/kinds'

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
