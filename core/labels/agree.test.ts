import { describe, expect, it } from 'vitest'
import { agreedWords } from './agree'
import type { LabelWord } from './word'

const word = (text: string, confidence: number, left = 0, width = 100): LabelWord => ({
  text,
  confidence,
  box: { left, top: 0, right: left + width, bottom: 30 },
})

describe('two readings of a label', () => {
  it('that agree make a word sure; a comma is a point, and V is v', () => {
    expect(agreedWords([word('14,6V', 0.4)], [word('14.6v', 0.5)])[0]).toMatchObject({
      text: '14,6V',
      confidence: 0.96,
    })
  })

  it('that differ in a number leave it in doubt, however sure either was', () => {
    expect(agreedWords([word('160', 0.95)], [word('100', 0.97)])[0]).toMatchObject({
      text: '160',
      confidence: 0.3,
    })
    expect(agreedWords([word('B3V', 0.2)], [word('13V', 0.9)])[0]).toMatchObject({
      text: '13V',
      confidence: 0.2,
    })
  })

  it('that split words differently agree where their letters do', () => {
    const first = [word('12V', 0.5, 0, 60)]
    const second = [word('12', 0.8, 0, 30), word('V', 0.8, 35, 25)]
    expect(agreedWords(first, second)).toMatchObject([{ text: '12V', confidence: 0.96 }])
  })

  it('that run words together agree, unless a digit was lost', () => {
    expect(agreedWords([word('12V', 0.5)], [word('12V80Ah', 0.9)])[0]?.confidence).toBe(0.96)
    expect(agreedWords([word('5A', 0.9)], [word('15A', 0.9)])[0]?.confidence).toBe(0.3)
  })

  it('add words of the second reading alone with less confidence, but no scratches', () => {
    const words = agreedWords(
      [word('Float', 0.9)],
      [word('13.6V', 0.8, 300), word('|', 0.9, 500), word('ee', 0.2, 700)],
    )
    expect(words.map(({ text, confidence }) => [text, confidence])).toEqual([
      ['Float', 0.9],
      ['13.6V', 0.4],
    ])
  })

  it('leave words alone that the second did not see', () => {
    expect(agreedWords([word('14.6', 0.85)], [])).toEqual([word('14.6', 0.85)])
  })
})
