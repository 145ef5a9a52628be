import type { Box, LabelWord } from './word'

/** Confidence of a word on which two readings agree. A word in only one reading, or with two forms, is in doubt. */
const [agreed, alone, disputed] = [0.96, 0.5, 0.3]
/** Below this confidence, the more confident word of the second reading replaces a word. */
const unsure = 0.5
/** Overlap, as a share of the smaller box, from which two boxes are the same place. */
const samePlace = 0.5

/** Whether a word is print, and not a frame or a scratch. */
const isPrint = ({ text, confidence }: LabelWord): boolean =>
  text.replace(/[^\p{L}\p{N}]/gu, '').length >= 2 && confidence >= unsure

const areaOf = ({ left, top, right, bottom }: Box): number =>
  Math.max(0, right - left) * Math.max(0, bottom - top)
const shared = (a: Box, b: Box): number =>
  areaOf({
    left: Math.max(a.left, b.left),
    top: Math.max(a.top, b.top),
    right: Math.min(a.right, b.right),
    bottom: Math.min(a.bottom, b.bottom),
  }) / Math.max(1, Math.min(areaOf(a), areaOf(b)))

/** Letters and digits alone, with letters that are often taken for each other as one. */
const compared = (text: string): string =>
  text
    .replace(/[^\p{L}\p{N}.,%-]/gu, '')
    .replace(/,/gu, '.')
    .replace(/[vV]+/gu, 'v')
    .replace(/^[.-]+|[.-]+$/gu, '')
const digits = (text: string): string =>
  text
    .replace(/[^\d.,-]/gu, '')
    .replace(/,/gu, '.')
    .replace(/^[.-]+|[.-]+$/gu, '')

/** Whether a word with a number is a part of a longer one, and its number no part of a longer number. */
function containsWord(text: string, word: string): boolean {
  const at = /\d/u.test(word) ? text.indexOf(word) : -1
  if (at < 0) return false
  const [before, after] = [text.slice(0, at), text.slice(at + word.length)]
  return !(/^\d/u.test(word) && /[\d.]$/u.test(before)) && !(/\d$/u.test(word) && /^[\d.]/u.test(after))
}

/**
 * The words of a reading, each as sure as a second reading of the same picture makes it. Numbers that the two read
 * differently are in doubt, however sure either was.
 */
export function agreedWords(first: readonly LabelWord[], second: readonly LabelWord[]): LabelWord[] {
  const used = new Set<LabelWord>()
  const words = first.map((word): LabelWord => {
    const there = second
      .filter(({ box }) => shared(word.box, box) > samePlace)
      .sort((a, b) => a.box.left - b.box.left)
    if (there.length === 0) return word
    for (const one of there) used.add(one)
    const text = there.map((one) => one.text).join('')
    // The second reading may have run two words into one.
    const isSame = compared(text) === compared(word.text)
    if (isSame) return { ...word, confidence: Math.max(word.confidence, agreed) }
    const hasDigits = /\d/u.test(word.text) || /\d/u.test(text)
    if (!hasDigits) return word
    const isWithin = there.length === 1 && containsWord(compared(text), compared(word.text))
    const isSameNumber = digits(word.text) !== '' && digits(text) === digits(word.text)
    if (isWithin || isSameNumber) return { ...word, confidence: Math.max(word.confidence, agreed) }
    const [only] = there.length === 1 ? there : []
    const surer = only !== undefined && only.confidence > word.confidence && word.confidence < unsure
    return { ...word, text: surer ? text : word.text, confidence: Math.min(word.confidence, disputed) }
  })
  const missed = second.filter(
    (one) => !used.has(one) && isPrint(one) && !first.some(({ box }) => shared(box, one.box) > samePlace / 2),
  )
  return [...words, ...missed.map((one) => ({ ...one, confidence: one.confidence * alone }))]
}
