import type { WiredJob } from '#core/assessment/wired'
import { checkTopic } from '#core/assessment/checks/index'
import { lifeKwh, type CandidateColumn } from '#core/compare/candidates'
import type { JobDocument } from '#core/job/document'
import { fittingPlaces } from '#core/job/parts/network'
import { dailyUse } from '#core/system/energy'
import type { System } from '#core/system/system'
import { inSentence, type Write } from '#core/units/format'
import { numberedPosts } from '#core/wiring/numbered'
import { ratingWords } from '#core/wiring/words'
import { tableSection, type Section } from '../blocks'
import { roughly, told } from './sentences'
import { placesDrawing } from './places-drawing'

/** The fitted parts, each with its purpose. */
export function fittedSection({ specified }: JobDocument): Section[] {
  const steps = specified?.steps ?? []
  if (steps.length === 0) return []
  return [
    tableSection(
      { heading: 'What we fitted, and why' },
      [
        { title: 'Work', widthMm: null },
        { title: 'Because of', widthMm: 64 },
      ],
      steps.map(({ label, on, settles }) => [
        on ? `${label} (${on})` : label,
        settles.map((id) => inSentence(checkTopic(id))).join(', '),
      ]),
    ),
  ]
}

/** The resulting fuses and switches, with purpose and place. */
export function placesSection(wired: WiredJob, q: Write): Section[] {
  const fittings = numberedPosts(wired.network, ['fuse', 'switch'])
  if (fittings.length === 0) return []
  return [
    {
      heading: 'Where the switch and the fuses are',
      about: 'positive side',
      blocks: [
        { kind: 'drawing', drawing: placesDrawing(wired, q) },
        {
          kind: 'table',
          name: 'Fuses and switches',
          columns: [
            { title: 'Number', widthMm: 20 },
            { title: 'What', widthMm: null },
            { title: 'Where', widthMm: 42 },
            { title: 'Rating', widthMm: 30, right: true },
          ],
          rows: fittings.map(({ name, place, fitting }) => [
            fitting.number,
            name,
            place ? fittingPlaces[place] : 'not noted',
            ratingWords(fitting, q),
          ]),
          sums: [],
        },
      ],
    },
  ]
}

/** Nominal voltage of four LFP cells, V. */
const lfpNominalV = 12.8
/** Age ends an LFP battery that is hardly cycled after about this many years (engineering default). */
const mostYears = 15

/** Cost of a kilowatt-hour over the life of the battery, and the length of that life, with its assumptions. */
export function lifeSection(system: System, column: CandidateColumn, asks: boolean): Section[] {
  const { q, rules, bank } = system
  const kwh = lifeKwh(system)
  const dayAh = asks ? dailyUse(system).ah : 0
  const dayKwh = (dayAh * lfpNominalV * bank.scale) / 1000
  const years = dayKwh > 0 ? kwh / (dayKwh * 365) : null
  return told(
    'Cost and life',
    `Over its life the battery can deliver about ${Number(kwh.toPrecision(2))} kWh.`,
    column.pricePerKwh !== null && `At its price, each kWh costs about ${q(column.pricePerKwh, 'money')}.`,
    years !== null &&
      (years > mostYears
        ? `Used every day as today, age ends it first: count on about ${mostYears} years.`
        : `Used every day as today, it lasts about ${roughly(years)} years.`),
    `We assume ${q(rules.usableLithium, '%')} of the charge is used each time.`,
    `We assume ${bank.each.cycles} cycles to ${q(bank.each.cycleDepth, '%')} depth, as stated for it.`,
  )
}
