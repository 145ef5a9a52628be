/** A place on the picture that was read, px from its top left. */
export interface Box {
  readonly left: number
  readonly top: number
  readonly right: number
  readonly bottom: number
}

/** A word as it was recognised. */
export interface LabelWord {
  readonly text: string
  /** How sure the recognition is of it, 0 to 1. */
  readonly confidence: number
  readonly box: Box
}

/** The smallest box around some boxes, of which there is at least one. */
export const around = (boxes: readonly Box[]): Box => ({
  left: Math.min(...boxes.map(({ left }) => left)),
  top: Math.min(...boxes.map(({ top }) => top)),
  right: Math.max(...boxes.map(({ right }) => right)),
  bottom: Math.max(...boxes.map(({ bottom }) => bottom)),
})

const heightOf = ({ top, bottom }: Box): number => bottom - top
const middleOf = ({ top, bottom }: Box): number => (top + bottom) / 2

/** Neighbours lie at most this far apart, and words of one line differ by at most this much in height, in heights. */
const nearby = 1.5
const sameLine = 0.5

/**
 * Slope of the lines from left to right: the rest after levelling, which changes from top to bottom on a plate seen
 * at an angle.
 */
interface Slope {
  readonly atTop: number
  /** More a pixel downwards. */
  readonly more: number
}

/** The slope of lines by words that stand next to each other. */
function slopeOf(words: readonly LabelWord[]): Slope {
  const steps = words.flatMap(({ box: a }) => {
    const next = words
      .map(({ box }) => box)
      .filter(
        (b) =>
          b.left > a.right - heightOf(a) / 4 &&
          b.left - a.right < nearby * heightOf(a) &&
          Math.abs(middleOf(b) - middleOf(a)) < heightOf(a) * sameLine,
      )
      .sort((b, c) => b.left - c.left)[0]
    if (!next) return []
    const run = (next.left + next.right - a.left - a.right) / 2
    return [{ at: middleOf(a), rise: (next.bottom + next.top - a.bottom - a.top) / 2 / run, weight: run }]
  })
  const sum = (of: (step: (typeof steps)[number]) => number): number =>
    steps.reduce((total, step) => total + step.weight * of(step), 0)
  const weight = sum(() => 1)
  if (steps.length < fewestSteps) return { atTop: 0, more: 0 }
  const [at, rise] = [sum((step) => step.at) / weight, sum((step) => step.rise) / weight]
  const spread = sum((step) => (step.at - at) ** 2)
  const more = spread === 0 ? 0 : sum((step) => (step.at - at) * (step.rise - rise)) / spread
  return { atTop: rise - more * at, more }
}
const fewestSteps = 5

/** Height of print in the middle, px. */
function usualHeight(words: readonly LabelWord[]): number {
  const heights = words.map(({ box }) => heightOf(box)).sort((a, b) => a - b)
  return heights[heights.length >> 1] ?? 1
}
/** Frames and scratches are read as letters of more than this many usual heights. */
const tallest = 4
/** Words that show how lines run are at least this sure. */
const sureEnough = 0.6

/**
 * Words by the lines that they stand on, from the top, each from the left. A line runs across all columns: rows of a
 * table stay together.
 */
export function linesOf(all: readonly LabelWord[]): LabelWord[][] {
  const print = all.filter(({ text }) => /[\p{L}\p{N}%]|^(?:[-–~…]|\.{2,4})$/u.test(text))
  const sure = print.filter(({ confidence }) => confidence >= sureEnough)
  const usual = usualHeight(sure.length > 0 ? sure : print)
  const words = print.filter(({ box }) => heightOf(box) < tallest * usual)
  const { atTop, more } = slopeOf(
    words.filter((word) => word.confidence >= sureEnough && word.text.length > 1),
  )
  const placed = words
    .map((word) => {
      const at = middleOf(word.box)
      const across = (word.box.left + word.box.right) / 2
      return { word, at: at - (atTop + more * at) * across }
    })
    .sort((a, b) => a.word.box.left - b.word.box.left)
  const lines: (typeof placed)[] = []
  for (const one of placed) {
    const apart = (line: typeof placed): number => {
      const near = line.slice(-3)
      const at = near.reduce((sum, each) => sum + each.at, 0) / near.length
      return Math.abs(at - one.at) / usual
    }
    const [best] = lines.filter((line) => apart(line) < sameLine).sort((a, b) => apart(a) - apart(b))
    if (best) best.push(one)
    else lines.push([one])
  }
  const topOf = (line: typeof placed): number => line[0]?.at ?? 0
  return lines.sort((a, b) => topOf(a) - topOf(b)).map((line) => line.map(({ word }) => word))
}
