import { withId } from '#core/collections/held'
import { fittingPlaces } from '#core/job/parts/network'
import { familyWords } from '#core/job/parts/wiring'
import { crafts, type JobDocument } from '#core/job/document'
import type { WiredJob } from '#core/assessment/wired'
import { torqueWords } from '#core/wiring/lists'
import type { Shape } from '#core/drawing/shape'
import { lengthWords, lineWords, ratingWords, sizeWords, stateWords } from '#core/wiring/words'
import type { DisplayUnits } from '#core/units/display'
import { inSentence, joinText, writerIn, type Write } from '#core/units/format'
import { verdictWords } from '#core/system/verdict'
import {
  dayOf,
  listSection,
  paperSize,
  plain,
  strong,
  tableSection,
  type Paper,
  type Section,
} from './blocks'
import { fuseNumber, postName, wiringLabels } from './labels'

/** Inputs of a job's wiring plan. */
interface WiringInputs {
  readonly job: JobDocument
  readonly wired: WiredJob
  readonly drawing: Shape
  readonly shop: { readonly name: string; readonly units: DisplayUnits }
  readonly madeAt: string
}

const cautions = [
  'Sizes and ratings are starting points: the local code, the makers’ sheets and licensed practice decide.',
  'A licensed person does the mains side of chargers and inverters. It is not drawn here.',
  'The current of a run is its largest in any case. Two runs in series can have theirs in different cases.',
  'It is at least the rated output of its source, or the shop’s share of what the battery delivers.',
  'Torques are typical for the stud. The maker’s figure for the part decides.',
  'Disconnect the battery as its maker says before you touch a lug. Remove jewellery and cover the posts.',
  joinText(
    'Thick lines are new, thin lines stay, crossed-out parts go, ',
    'dash-dot is negative. The main path shows both poles. ',
    'A branch line means both conductors. L with a number is a signal line from the list.',
  ),
]

/** The plan of the wiring: drawing, open items, runs, fuses, parts to buy, parts to move, labels. */
export function wiringPaper({ job, wired, drawing, shop, madeAt }: WiringInputs): Paper {
  const { number, name, craft, registration, location } = job.job
  const q = writerIn(shop.units)
  return {
    title: `Wiring of ${name || 'this vehicle'}`,
    over: [shop.name, `Job ${number}`, dayOf(madeAt)].filter(Boolean).join(' · '),
    under: [[craft && crafts[craft], registration, location].filter(Boolean).join(' · ')].filter(Boolean),
    sections: [
      { heading: 'Drawing', verdict: wired.verdict, blocks: [{ kind: 'drawing', drawing }] },
      ...openOf(wired),
      runsOf(wired, q),
      fusesOf(wired, q),
      ...listSection(
        'Moved from the old unit to the new unit',
        wired.swaps.map(
          ({ terminal, runs, carriedOver }) =>
            `${terminal}: ${runs.join(', ') || 'no run'}${carriedOver.length > 0 ? `; carry over ${carriedOver.join(', ')}` : ''}`,
        ),
      ),
      ...listSection(
        'Signal and sense lines',
        wired.network.lines.map((line) => `${line.number} ${lineWords(line)}`),
      ),
      partsSection(wired, q),
      labelsOf(wired, q),
      ...listSection('Mind', cautions),
    ],
    foot: `Job ${number}, wiring, ${dayOf(madeAt)}`,
    author: shop.name,
    madeAt,
    size: paperSize(shop.units.system),
  }
}

function openOf({ checks }: WiredJob): Section[] {
  const open = checks.filter(({ verdict }) => verdict !== 'suits')
  if (open.length === 0) return []
  return [
    {
      heading: 'To be changed or measured',
      blocks: [
        {
          kind: 'findings',
          findings: open.map(({ verdict, title, summary, formula }) => ({
            verdict,
            line: [strong(`${title}. `), plain(`${verdictWords[verdict]}: ${summary}`)],
            small: [formula],
          })),
        },
      ],
    },
  ]
}

function runsOf(wired: WiredJob, q: Write): Section {
  return tableSection(
    { heading: 'Runs' },
    [
      { title: 'Run', widthMm: 18 },
      { title: 'From', widthMm: null },
      { title: 'To', widthMm: null },
      { title: 'Size', widthMm: 22, right: true },
      { title: 'Length', widthMm: 18, right: true },
      { title: 'Current', widthMm: 16, right: true },
      { title: 'Fuse', widthMm: 12 },
      { title: 'Torque, about', widthMm: 22 },
    ],
    wired.network.runs.map((run) => [
      `${run.number} ${stateWords[run.state]}`,
      postName(wired, run.from),
      postName(wired, run.to),
      sizeWords(run, q),
      lengthWords(run, q),
      q(withId(wired.runs, run.id).amps, 'A'),
      fuseNumber(wired, run.id) ?? 'none',
      torqueWords(run, wired.network),
    ]),
  )
}

function fusesOf({ network, fittings }: WiredJob, q: Write): Section {
  return tableSection(
    { heading: 'Fuses, switches and bars' },
    [
      { title: '', widthMm: 10 },
      { title: 'What', widthMm: null },
      { title: 'Rating', widthMm: 20, right: true },
      { title: 'Short circuit', widthMm: 24, right: true },
      { title: '', widthMm: 12 },
      { title: 'Why', widthMm: 62 },
    ],
    network.posts.flatMap(({ id, name, fitting, place, state }) =>
      fitting
        ? [
            [
              fitting.number,
              joinText(
                name,
                fitting.family ? `, ${familyWords(fitting.family)}` : '',
                place ? `, ${inSentence(fittingPlaces[place])}` : '',
              ),
              ratingWords(fitting, q),
              fitting.family ? q(withId(fittings, id).shortA, 'A') : '',
              stateWords[state],
              fitting.reason,
            ],
          ]
        : [],
    ),
  )
}

function partsSection({ parts }: WiredJob, q: Write): Section {
  return tableSection(
    {
      heading: 'To buy for the wiring',
      about: 'cable includes 10 % extra, at least 0.3 m a run',
      name: 'To buy',
    },
    [
      { title: 'Quantity', widthMm: 24, right: true },
      { title: 'What', widthMm: null },
      { title: 'Weight, about', widthMm: 26, right: true },
    ],
    parts.map(({ what, quantity, unit, kg }) => [
      unit === 'm' ? q(quantity, 'm') : String(quantity),
      what,
      kg === null ? '' : q(kg, 'kg'),
    ]),
  )
}

/** Labels for both ends of each run: number, from, to, fuse. */
function labelsOf(wired: WiredJob, q: Write): Section {
  const cards = wiringLabels(wired, q).map(({ number, from, to, size, fuse }) => ({
    title: number,
    facts: to
      ? [
          { label: 'from', value: from },
          { label: 'to', value: to },
          { label: 'fuse', value: fuse || 'none' },
          { label: 'size', value: size },
        ]
      : [
          { label: 'what', value: from },
          { label: 'rating', value: size || 'unknown' },
        ],
  }))
  return {
    heading: 'Labels',
    about: 'one for each end of a run, then one for each fuse, switch and bar',
    blocks: [{ kind: 'cards', cards }],
  }
}
