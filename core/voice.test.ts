import { describe, expect, it } from 'vitest'
import { allChecks } from '#core/assessment/checks/index'
import { allFaults } from '#core/proving/faults/index'

/** Forms that no text of a catalogue uses, each with what to write in its place. */
const banned: readonly (readonly [form: RegExp, write: string])[] = [
  [/\banew\b/i, 'again'],
  [/\bnought\b/i, 'zero'],
  [/\bwish(es|ed)?\b/i, 'wants, or needs'],
  [/\bbears?\b/i, 'carries, or tolerates'],
  [/\bwhoever\b|\bwhatever\b/i, 'the person, or the thing, by name'],
  [/\bbeside\b/i, 'next to'],
  [/\bjudge[ds]?\b/i, 'check'],
  [/\brested volts?\b/i, 'resting voltage'],
  [/\bmust read\b/i, 'expected'],
  [/\bput off\b/i, 'skip'],
  [/\bin all\b/i, 'total'],
  [/\bas usual\b/i, 'typical'],
  [/\bof its own\b/i, 'separate'],
  [/\bnot known\b/i, 'unknown, or missing'],
]
/** Words in a sentence at most. */
const mostWords = 24

const texts: readonly (readonly [where: string, text: string])[] = [
  ...allChecks.flatMap(({ id, title, why }) => [[id, title] as const, [id, why] as const]),
  ...allFaults.flatMap(({ id, title, mend }) => [[id, title] as const, [id, mend] as const]),
]

describe('the texts of checks and faults', () => {
  it.each(banned)('do not use %s', (form, write) => {
    for (const [where, text] of texts)
      expect({ where, text, write, found: form.test(text) }).toMatchObject({ found: false })
  })
  it(`have sentences of at most ${mostWords} words`, () => {
    for (const [where, text] of texts)
      for (const sentence of text.split(/(?<=[.?!])\s/)) {
        const words = sentence.split(/\s+/).length
        expect({ where, sentence, tooLong: words > mostWords }).toMatchObject({ tooLong: false })
      }
  })
  it('say what to do about a fault in sentences', () => {
    for (const { mend } of allFaults) expect(mend).toMatch(/^[A-Z].*\.$/)
  })
})
