import { joinText } from '#core/units/format'
import { phases, type Phase } from '#core/commissioning/order/step'
import { worthWords } from '#core/diagnosis/worth'
import type { Shape } from '#core/drawing/shape'
import { asFitted } from '#core/job/as-fitted'
import { verdictWords, worst } from '#core/system/verdict'
import {
  dayOf,
  judged,
  listSection,
  paperSize,
  plain,
  soft,
  strong,
  tableSection,
  type Paper,
  type Section,
} from './blocks'
import { logoOf } from './head'
import { photosSection } from './photos'
import type { FittingRecord, RecordInputs, Signature } from './record'
import { serialsSection } from './serials'

/** Who did it and when, and which criteria were met. */
function doneWords(by: string, when: string, note: string): string {
  const done = [by, when && dayOf(when)].filter(Boolean).join(', ')
  return [done, note].filter(Boolean).join(': ')
}

const stateWords = { done: 'done', 'put-off': 'skipped', open: 'not done' } as const

/** The paper of a signed record, from its frozen content alone. */
export function recordPaper({ inputs, result }: FittingRecord): Paper {
  const { job, shop, number, issuedAt, issuedBy, signature } = inputs
  const { customer, name, registration, location } = job.job
  return {
    title: `Fitted and proved ${number}`,
    over: shop.name,
    under: [
      [customer, name, registration, location].filter(Boolean).join(' · '),
      `Signed ${dayOf(issuedAt)} by ${signature.name}, entered by ${issuedBy}. It cannot be changed.`,
    ],
    sections: [
      asFittedSection(result),
      ...listSection('Missing at signing', [
        ...(result.gaps ?? []),
        ...(signature.reason ? [`Signed anyway: ${signature.reason}`] : []),
      ]),
      ...worthSections(result),
      ...(result.tests.length > 0 ? [testsSection(result)] : []),
      ...listSection('Not tested', result.open),
      ...listSection(
        'Found and repaired',
        result.mended.map(({ words, by, when }) => `${words}: repaired ${dayOf(when)} by ${by}`),
      ),
      ...listSection('Differences from the specification', result.fitted),
      ...serialsSection(asFitted(job)),
      ...listSection(
        'Learnt from the readings',
        result.learnt.map(({ of, name = of, words }) => `${name}: ${words}`),
      ),
      ...stepsSections(result),
      signedSection(inputs),
      ...photosSection(inputs.photos),
    ],
    foot: `Record ${number}, ${dayOf(issuedAt)}`,
    author: shop.name,
    madeAt: issuedAt,
    size: paperSize(shop.units.system),
    ...logoOf(inputs.letterhead),
  }
}

const asFittedSection = (result: FittingRecord['result']): Section => ({
  heading: 'As fitted',
  verdict: worst([result.verdict, result.wiring]),
  blocks: [
    { kind: 'answer', verdict: result.verdict, text: `${result.headline}${provedWords(result)}` },
    { kind: 'text', line: [plain('Wiring: '), judged(result.wiring, verdictWords[result.wiring])] },
  ],
})

const worthSections = ({ worth }: FittingRecord['result']): Section[] =>
  worth && worth.done > 0
    ? [
        {
          heading: 'Remaining risk',
          blocks: [{ kind: 'text', line: [plain(worthWords(worth.done, worth.of, worth.risk))] }],
        },
      ]
    : []

const signedSection = ({ signature, issuedAt }: RecordInputs): Section => ({
  heading: 'Signed',
  blocks: [
    { kind: 'text', line: [strong(signature.name), soft(` · ${dayOf(issuedAt)}`)] },
    ...(signature.strokes.length > 0
      ? [{ kind: 'drawing' as const, drawing: signatureShape(signature) }]
      : []),
    {
      kind: 'text',
      line: [
        plain(
          joinText(
            'The installer took these readings with the instruments named. ',
            'The local code, the makers’ instructions and licensed practice apply.',
          ),
        ),
      ],
    },
  ],
})

/** How far the verdict was proved, after its headline: it is calculated, and readings alone prove it. */
function provedWords({ tests, open, worth }: FittingRecord['result']): string {
  if (tests.length === 0) return ', calculated only: no reading was taken'
  const [done, of] = worth ? [worth.done, worth.of] : [tests.length, tests.length + open.length]
  return done < of
    ? `, proved by ${done || 'none'} of ${of} essential tests`
    : ', proved by all essential tests'
}

function testsSection({ tests }: FittingRecord['result']): Section {
  const expected = tests.filter(({ within }) => within).length
  return tableSection(
    { heading: 'Readings', about: `${expected} of ${tests.length} as expected` },
    [
      { title: 'Test', widthMm: null },
      { title: 'With', widthMm: 44 },
      { title: 'Expected', widthMm: 32, right: true },
      { title: 'Read', widthMm: 22, right: true },
      { title: '', widthMm: 18 },
    ],
    tests.map((test) => [
      test.title,
      test.state,
      test.expected,
      test.reading,
      test.within ? 'within' : 'outside',
    ]),
  )
}

function stepsSections({ steps }: FittingRecord['result']): Section[] {
  return (Object.keys(phases) as Phase[]).flatMap((phase) => {
    const own = steps.filter((step) => step.phase === phase)
    if (own.length === 0) return []
    return [
      {
        heading: phases[phase],
        about: `${own.filter(({ state }) => state === 'done').length} of ${own.length} done`,
        blocks: [
          {
            kind: 'list' as const,
            numbered: false,
            items: own.map(({ words, state, by, when, note }) => [
              strong(`${stateWords[state]}: `),
              plain(words),
              soft(` ${doneWords(by, when, note)}`),
            ]),
          },
        ],
      },
    ]
  })
}

const signatureMargin = 6
/** The lines of a signature as a drawing. */
function signatureShape({ strokes }: Signature): Shape {
  const points = strokes.flat()
  const xs = points.map(([x]) => x)
  const ys = points.map(([, y]) => y)
  const [left, top] = [Math.min(...xs) - signatureMargin, Math.min(...ys) - signatureMargin]
  const width = Math.max(...xs) + signatureMargin - left
  const height = Math.max(...ys) + signatureMargin - top
  return {
    tag: 'svg',
    attributes: {
      xmlns: 'http://www.w3.org/2000/svg',
      viewBox: `${left} ${top} ${width} ${height}`,
      width,
      height,
    },
    children: strokes
      .filter((stroke) => stroke.length > 0)
      .map((stroke): Shape => ({
        tag: 'path',
        attributes: {
          d: stroke.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`).join(''),
          fill: 'none',
          stroke: '#1C2A30',
          'stroke-width': 2,
          'stroke-linecap': 'round',
        },
        children: [],
      })),
  }
}
