import { shelfKind, type ShelfPart } from '#core/shelf/kinds'
import type { LabelReading } from './read-label'

const bare = (text: string): string => text.toUpperCase().replace(/[^A-Z0-9]/gu, '')

/** Codes and models shorter than this are met by chance. */
const shortest = 4
/** Values that a part has to share with the label where no name says which it is. */
const fewestShared = 2

/** How many of the read values a part has, and whether one of them differs. */
function valuesShared(
  { kind, values }: ShelfPart,
  { values: read }: LabelReading,
): { readonly same: number; readonly differ: number } {
  const brief: readonly string[] = shelfKind(kind).brief
  const known = read.filter(({ field, isSure }) => isSure && values[field] !== undefined)
  return {
    same: known.filter(({ field, value }) => brief.includes(field) && values[field] === value).length,
    differ: known.filter(({ field, value }) => values[field] !== value).length,
  }
}

/**
 * The part of the shelf that a label is of: by a code on it, by its model, or by its values together with its name;
 * null if none or several fit.
 * @param codes texts of barcodes on the label
 */
export function shelfMatch(
  reading: LabelReading,
  {
    codes,
    parts,
    print,
  }: { readonly codes: readonly string[]; readonly parts: readonly ShelfPart[]; readonly print: string },
): ShelfPart | null {
  const names = [...codes, reading.model?.text ?? ''].map(bare).filter((text) => text.length >= shortest)
  const byCode = parts.find(({ code }) => names.includes(bare(code)))
  if (byCode) return byCode
  const byName = parts.filter((part) => names.some((name) => bare(part.name).includes(name)))
  if (byName.length === 1) return byName[0] ?? null
  // Its maker on the label, and its main values.
  const small = print.toLowerCase()
  const fitting = parts.filter((part) => {
    const { same, differ } = valuesShared(part, reading)
    return (
      part.maker !== '' && small.includes(part.maker.toLowerCase()) && same >= fewestShared && differ === 0
    )
  })
  return fitting.length === 1 ? (fitting[0] ?? null) : null
}
