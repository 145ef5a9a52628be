import { conceptsOf, plainWord } from './concepts'
import type { Line } from './line'
import type { Box } from './word'

/** Words on a plate that are a name of it. */
export interface LabelName {
  readonly text: string
  readonly box: Box
  readonly isSure: boolean
}

/** Names have no unit and no usual range that would show a slip: they are believed from this confidence on. */
const sureOfNames = 0.9

/** Pattern of a model or serial number. */
const code = /^[A-Z0-9][A-Z0-9/.\-]{2,30}$/iu

/** The name that stands after its word: `Model BRI-200H`. */
export function nameAfter(lines: readonly Line[], concept: 'model' | 'serial'): LabelName | null {
  for (const line of lines) {
    const at = line.words.findLastIndex(({ word }) => conceptsOf(word.text).includes(concept))
    if (at < 0) continue
    const next = line.words
      .slice(at + 1)
      .filter(({ word }) => !/^\W*$/u.test(word.text) && !isFiller(word.text))
    const [found] = next
    if (!found) continue
    // A number that was read as two words is one word with a gap of less than half its height.
    const second = next[1]?.word
    const isSplit =
      second !== undefined &&
      /\d/u.test(second.text) &&
      second.box.left - found.word.box.right < (found.word.box.bottom - found.word.box.top) / 2
    const text = (found.word.text + (isSplit ? second.text : '')).replace(/^[:;.,]+|[:;.,]+$/gu, '')
    if (!code.test(text) || !/\d/u.test(text)) continue
    return {
      text: text.toUpperCase(),
      box: found.word.box,
      isSure: found.word.confidence >= sureOfNames && !isSplit,
    }
  }
  return null
}
const isFiller = (text: string): boolean =>
  ['no', 'no.', 'nr', 'nr.', 'number', 'n', 'n.', 'de', 'di'].includes(plainWord(text))
