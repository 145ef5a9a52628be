import { readFile } from 'node:fs/promises'
import type { Sql } from 'postgres'
import { chanceOf, normal, type Chance } from '#core/commissioning/chance'
import type { JobDocument, Stage } from '#core/job/document'
import type { Proving } from '#core/job/proving'
import type { Specified } from '#core/job/specified'
import { entryOf, type EntryBody } from '#core/logbook/entry'
import type { IssuedContent } from '#core/papers/issued'
import { usualLetterhead } from '#core/quotation/terms'
import { quotationOf } from '#core/papers/quotation'
import { sheetInputs } from '#core/papers/sheet'
import { dayOfMoment, plusDays, type Day } from '#core/reminders/day'
import { reminderOfWarranty } from '#core/reminders/reminders'
import { metric } from '#core/units/display'
import { judgeHere } from '../judging/judge'
import { first } from '../repositories/first'
import { repositoriesOf } from '../repositories/index'
import { rowOfSheet } from '../repositories/sheets'

/** Calculated in advance: a first start does not wait for it. */
export interface DemoYears {
  /** By number: the customers' choices, and the progress of the jobs. */
  readonly jobs: Readonly<
    Record<string, { readonly specified: Specified; readonly proving?: Proving; readonly stage: Stage }>
  >
  /** In the order in which they were issued. */
  readonly papers: readonly {
    readonly job: string
    readonly content: IssuedContent
    readonly answer?: {
      readonly answer: 'accepted' | 'declined'
      readonly name: string
      readonly note: string
    }
  }[]
}

interface Place {
  readonly workshop: string
  readonly job: string
  readonly craft: string
}

const by = 'Ida Brell'
const seed = 417
const yearDays = 365.25

/** A reading some years back, as a day’s noon. */
const dayBack = (today: Day, years: number): Day => plusDays(today, -Math.round(years * yearDays))
const noon = (day: Day): string => `${day}T12:00:00.000Z`
const rounded = (value: number, step: number): number => Number((Math.round(value / step) * step).toFixed(6))

interface Course {
  readonly quantity: 'capacity' | 'jointResistance' | 'caseTemperature' | 'restingVoltage' | 'tailCurrent'
  readonly subject: string
  readonly expected: number | null
  /** The value on the first visit, its change a year, and the scatter of a reading. */
  readonly from: number
  readonly aYear: number
  readonly scatter: number
  readonly step: number
}

/** Readings of one quantity on each visit. */
const readingsOf = (
  { quantity, subject, expected, from, aYear, scatter, step }: Course,
  visits: readonly number[],
  today: Day,
  chance: Chance,
): EntryBody[] =>
  visits.map((back) =>
    entryOf({
      kind: 'reading',
      at: noon(dayBack(today, back)),
      source: 'typed',
      quantity,
      subject,
      expected,
      value: rounded(from + aYear * (longestBack - back) + scatter * normal(chance), step),
    }),
  )

const longestBack = 3
/** Years before today of the half-yearly visits. */
const visits = [longestBack, 2.5, 2, 1.55, 1, 0.5, 0.06]

/** Three years of the workboat: its bank fades, and a joint warms. */
function workboat(today: Day, chance: Chance): EntryBody[] {
  const courses: readonly Course[] = [
    {
      quantity: 'capacity',
      subject: 'House bank',
      expected: 220,
      from: 214,
      aYear: -10.5,
      scatter: 2,
      step: 0.5,
    },
    {
      quantity: 'jointResistance',
      subject: 'Isolator to house bank',
      expected: 1.4,
      from: 1.55,
      aYear: 0.15,
      scatter: 0.03,
      step: 0.01,
    },
    {
      quantity: 'caseTemperature',
      subject: 'Alternator',
      expected: 84,
      from: 88,
      aYear: 0.3,
      scatter: 1.5,
      step: 1,
    },
    {
      quantity: 'restingVoltage',
      subject: 'Starting battery',
      expected: 12.7,
      from: 12.68,
      aYear: -0.03,
      scatter: 0.02,
      step: 0.01,
    },
  ]
  const replaced = noon(dayBack(today, 1.55))
  return [
    ...courses.flatMap((course) => readingsOf(course, visits, today, chance)),
    entryOf({
      kind: 'replaced',
      at: replaced,
      source: 'typed',
      subject: 'Bilge pump relay',
      serial: 'BPR-20714',
      warrantyEnd: plusDays(today, 41),
    }),
    entryOf({
      kind: 'visit',
      at: noon(dayBack(today, 1)),
      source: 'typed',
      words: 'Yearly test before the winter',
    }),
    entryOf({
      kind: 'deviation',
      at: noon(dayBack(today, 0.06)),
      source: 'typed',
      words: 'Drain hole of the battery tray is blocked: clear it',
    }),
  ]
}

/** Three years of the canal tug: its lithium keeps its charge, and its joints stay as they are. */
function canalTug(today: Day, chance: Chance): EntryBody[] {
  const courses: readonly Course[] = [
    {
      quantity: 'capacity',
      subject: 'Lead-acid bank',
      expected: 440,
      from: 431,
      aYear: -6,
      scatter: 5,
      step: 1,
    },
    {
      quantity: 'jointResistance',
      subject: 'Shaft generator to bus bar',
      expected: 0.9,
      from: 0.98,
      aYear: 0.01,
      scatter: 0.02,
      step: 0.01,
    },
    {
      quantity: 'tailCurrent',
      subject: 'Lead-acid bank',
      expected: null,
      from: 2.1,
      aYear: 0.4,
      scatter: 0.2,
      step: 0.1,
    },
  ]
  return [
    ...courses.flatMap((course) => readingsOf(course, visits, today, chance)),
    entryOf({
      kind: 'visit',
      at: noon(dayBack(today, 2)),
      source: 'typed',
      words: 'Museum opening: all lights on for six hours',
    }),
    entryOf({
      kind: 'note',
      at: noon(dayBack(today, 0.5)),
      source: 'typed',
      words: 'Two cells topped up with water',
    }),
  ]
}

async function placeOf(tx: Sql, number: string): Promise<Place> {
  const place = await tx<Place[]>`
    select workshop_id as workshop, job_id as job, craft_id as craft from job where number = ${number}`
  return first(place)
}

async function addPaper(tx: Sql, { workshop, job }: Place, issued: IssuedContent): Promise<number> {
  const [last] = await tx<{ most: number | null }[]>`
    select max(count)::int as most from sheet where workshop_id = ${workshop} and job_id = ${job}`
  const count = (last?.most ?? 0) + 1
  await tx`insert into sheet ${tx(rowOfSheet({ workshop, job, count }, issued))}`
  return count
}

/** The chosen answers and how far the jobs are. */
async function addAnswers(tx: Sql, years: DemoYears): Promise<void> {
  for (const [number, { stage, ...more }] of Object.entries(years.jobs)) {
    const { workshop, job } = await placeOf(tx, number)
    await tx`
      update job set stage = ${stage}, judged_version = 0,
        document = jsonb_set(document, '{job,stage}', to_jsonb(${stage}::text)) || ${tx.json(more as never)}
      where workshop_id = ${workshop} and job_id = ${job}`
  }
}

/** A quotation that waits for its answer: it is issued today, so that it is valid. */
async function addSentQuotation(tx: Sql, number: string, now: Date): Promise<void> {
  const place = await placeOf(tx, number)
  const [{ document }] = await tx<
    [{ document: JobDocument }]
  >`select document from job where job_id = ${place.job}`
  const head = { number: `${number}-1`, issuedAt: now.toISOString(), issuedBy: by }
  const shop = { name: 'Larkspur Slip Electrics', units: metric, rules: {}, letterhead: usualLetterhead }
  await addPaper(
    tx,
    place,
    quotationOf({ ...sheetInputs(document, shop, head), letterhead: usualLetterhead }),
  )
}

/**
 * Gives the demo workshop three years of logbooks, quotations in three states, a signed job with its papers, and
 * reminders: the same for the same day. For a database that has just got its demo jobs.
 * @param file with the results calculated in advance
 */
export async function loadDemoYears(sql: Sql, file: string, now = new Date()): Promise<void> {
  const years = JSON.parse(await readFile(file, 'utf8')) as DemoYears
  const today = dayOfMoment(now)
  const chance = chanceOf(seed)
  await sql.begin(async (transaction) => {
    const tx = transaction as unknown as Sql
    const workshops = await tx<{ id: string; epoch: string }[]>`select workshop_id as id, epoch from workshop`
    const { id, epoch } = first(workshops)
    const to = repositoriesOf(tx, { workshop: id, person: by, role: 'owner', epoch }, judgeHere)
    await addAnswers(tx, years)
    for (const { job, content, answer } of years.papers) {
      const place = await placeOf(tx, job)
      const count = await addPaper(tx, place, content)
      if (answer)
        await tx`
          insert into quotation_answer (workshop_id, job_id, count, answer, name, note, options, by)
          values (${place.workshop}, ${place.job}, ${count}, ${answer.answer}, ${answer.name}, ${answer.note}, '{}', ${by})`
      if (content.format === 'jovial-anchor/record') await to.followUp.ofRecord(tx, place.job, content)
    }
    await addSentQuotation(tx, '0424', now)
    const [boat, tug] = [await placeOf(tx, '0417'), await placeOf(tx, '0427')]
    await to.logbooks.addIn(tx, boat.craft, workboat(today, chance))
    await to.logbooks.addIn(tx, tug.craft, canalTug(today, chance))
    await to.reminders.addDue(tx, boat.craft, [
      { kind: 'yearly', source: 'demo', due: plusDays(today, -12), words: 'Yearly test of Marigold Tern.' },
      reminderOfWarranty('the bilge pump relay', 'demo', plusDays(today, 41)),
    ])
    await to.reminders.addDue(tx, tug.craft, [
      {
        kind: 'storage',
        source: 'demo',
        due: plusDays(today, 70),
        words: 'Check the charge of the laid-up tug.',
      },
    ])
  })
}
