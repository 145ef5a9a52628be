import { listSection, plain, type Block, type Section } from '../blocks'

type Said = string | false

/** Short paragraphs; those that are false or empty are left out. */
export const paragraphs = (...sentences: readonly Said[]): Block[] =>
  sentences
    .filter((one): one is string => one !== false && one !== '')
    .map((words) => ({ kind: 'text', line: [plain(words)] }))

/** A section of short paragraphs; nothing where there is none. */
export function told(heading: string, ...sentences: readonly Said[]): Section[] {
  const blocks = paragraphs(...sentences)
  return blocks.length === 0 ? [] : [{ heading, blocks }]
}
/** A section of points; nothing where there is none. */
export const points = (heading: string, ...items: readonly Said[]): Section[] =>
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
