import { describe, expect, it } from 'vitest'
import type { Fields } from '#core/job/field'
import { partKinds } from '#core/job/fields'
import { remedyCatalogue, remedyLabel, type RemedyId } from '#core/remedies/catalogue'
import { ruleCatalogue } from '#core/rules/rules'
import { shelfKinds } from '#core/shelf/kinds'
import { runKinds } from '#core/simulation/run-kinds'
import { metric } from '#core/units/display'
import { writerIn } from '#core/units/format'
import { glossary } from '#core/words/glossary'
import { allChecks } from '#core/assessment/checks/index'
import { allFaults } from '#core/diagnosis/faults/index'

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
const mostWords = 20

const remedyIds = Object.keys(remedyCatalogue) as RemedyId[]
type Text = readonly [where: string, text: string]
/** Every label, hint and option of the fields of some parts. */
const fieldTexts = (kinds: Readonly<Record<string, { readonly fields: Fields }>>): Text[] =>
  Object.entries(kinds).flatMap(([kind, { fields }]) =>
    Object.entries(fields).flatMap(([name, field]): Text[] => {
      const options = field.type === 'choice' ? Object.values(field.options) : []
      return [field.label, field.measure, field.absent ?? '', ...options].map((text) => [
        `${kind}/${name}`,
        text,
      ])
    }),
  )
const ruleTexts = Object.entries(ruleCatalogue).flatMap(([id, rule]): Text[] => {
  const options = rule.kind === 'school' ? [rule.options, rule.says].flatMap((one) => Object.values(one)) : []
  return [rule.label, rule.reason, ...options].map((text) => [id, text])
})
const remedyLabels = remedyIds.map((id): Text => [
  id,
  remedyLabel(
    { id, on: 'use', value: 10, values: { inputV: '12', outputV: '24', madeForV: '12' } },
    writerIn(metric),
  ),
])
const texts: readonly Text[] = [
  ...allChecks.flatMap(({ id, title, why }) => [[id, title] as const, [id, why] as const]),
  ...allFaults.flatMap(({ id, title, mend }) => [[id, title] as const, [id, mend] as const]),
  ...fieldTexts(partKinds),
  ...fieldTexts(shelfKinds),
  ...ruleTexts,
  ...remedyLabels,
  ...Object.entries(runKinds).flatMap(([id, { title, about }]): Text[] => [
    [id, title],
    [id, about],
  ]),
  ...Object.entries(glossary).flatMap(([topic, { words }]) =>
    words.flatMap(({ word, meaning }): Text[] => [
      [topic, word],
      [topic, meaning],
    ]),
  ),
]

describe('the texts of the catalogues', () => {
  it('begin with a verb where they are remedies', () => {
    const verbs =
      /^(Accept|Add|Check|Charge|Choose|Connect|Disconnect|Feed|Fit|Have|Keep|Limit|Move|Remove|Replace|Run|Separate|Set|Switch|Tell|Trickle-charge|Wire)\b/
    for (const [where, text] of remedyLabels)
      expect({ where, text }).toMatchObject({ text: expect.stringMatching(verbs) as string })
  })
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
  it('describe the repair of a fault in sentences', () => {
    for (const { mend } of allFaults) expect(mend).toMatch(/^[A-Z].*\.$/)
  })
})
