import { listSection, plain, type Section } from '../blocks'

/** A section of short paragraphs; nothing where there is none. */
export const told = (heading: string, ...sentences: readonly (string | false)[]): Section[] => {
  const said = sentences.filter((one): one is string => one !== false && one !== '')
  return said.length === 0
    ? []
    : [{ heading, blocks: said.map((text) => ({ kind: 'text', line: [plain(text)] })) }]
}
/** A section of points; nothing where there is none. */
export const points = (heading: string, ...items: readonly (string | false)[]): Section[] =>
  listSection(
    heading,
    items.filter((one): one is string => one !== false),
  )
/** A section of steps in their order. */
export const steps = (heading: string, ...items: readonly string[]): Section[] =>
  listSection(heading, items, true)
/** A figure for a sentence: one decimal below 10. */
export const roughly = (value: number): string =>
  value < 10 ? String(Math.round(value * 10) / 10) : String(Math.round(value))
