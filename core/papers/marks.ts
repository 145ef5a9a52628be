import type { Verdict } from '#core/system/verdict'

/**
 * A stroke of a mark in a square of 20: filled with its colour, drawn in it, or drawn in the colour of the
 * ground.
 */
export interface Stroke {
  readonly d: string
  readonly as: 'filled' | 'drawn' | 'cut'
  readonly width?: number
  readonly dash?: string
}

/** The verdicts by outline: a disc, a diamond, a dashed square, an octagon. */
export const verdictMarks: Readonly<Record<Verdict, readonly Stroke[]>> = {
  suits: [
    { d: 'M10 1.5a8.5 8.5 0 1 1 0 17 8.5 8.5 0 1 1 0-17Z', as: 'filled' },
    { d: 'm6 10.3 2.8 2.8L14 7.6', as: 'cut', width: 2 },
  ],
  'suits-once-changed': [
    { d: 'M10 .8 19.2 10 10 19.2.8 10Z', as: 'filled' },
    { d: 'M10 6v8M6 10h8', as: 'cut', width: 2 },
  ],
  'measure-first': [
    {
      d: 'M4 2h12a2 2 0 0 1 2 2v12a2 2 0 0 1-2 2H4a2 2 0 0 1-2-2V4a2 2 0 0 1 2-2Z',
      as: 'drawn',
      width: 2.2,
      dash: '4.2 2.6',
    },
    { d: 'M7.6 8a2.5 2.5 0 1 1 3.6 2.2c-.8.4-1.2.9-1.2 1.8', as: 'drawn', width: 1.8 },
    { d: 'M10 13.2a1.2 1.2 0 1 1 0 2.4 1.2 1.2 0 1 1 0-2.4Z', as: 'filled' },
  ],
  'does-not-suit': [
    { d: 'M6.3 1h7.4L19 6.3v7.4L13.7 19H6.3L1 13.7V6.3Z', as: 'filled' },
    { d: 'm6.8 6.8 6.4 6.4m0-6.4-6.4 6.4', as: 'cut', width: 2 },
  ],
}

/** The anchor of the product, in a square of 32. */
export const anchorMark: readonly Stroke[] = [
  { d: 'M16 3.5a3 3 0 1 1 0 6 3 3 0 1 1 0-6Z', as: 'drawn', width: 2.4 },
  {
    d: 'M16 9.5V27M11 13.5h10M5.5 18.5c.6 5 5 8.5 10.5 8.5s9.9-3.5 10.5-8.5',
    as: 'drawn',
    width: 2.4,
  },
]
