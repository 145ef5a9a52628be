import { asFitted } from '#core/job/as-fitted'
import type { Setting } from '#core/assessment/check'
import { settingsCards } from '#core/solve/settings'
import { factsOf, usualSystem, type System } from '#core/system/system'
import { capital, type Write } from '#core/units/format'
import { paperSize, type Fact, type Grid, type GridCell, type Paper } from './blocks'
import { codeShape } from './code'
import type { PaperBody } from './head'
import type { PlainInputs } from './inputs'

/** Ten cards to a sheet; A4 and Letter both have the room. */
const cardMm = { width: 85, height: 55 } as const
const sheetMm = { A4: [210, 297], Letter: [215.9, 279.4] } as const
const grid = (size: Paper['size']): Grid => {
  const [columns, rows] = [2, 5]
  const [width, height] = sheetMm[size]
  return {
    columns,
    rows,
    widthMm: cardMm.width,
    heightMm: cardMm.height,
    leftMm: (width - columns * cardMm.width) / 2,
    topMm: (height - rows * cardMm.height) / 2,
    gapMm: 0,
    isCut: true,
  }
}
/** Lines that a card has room for. */
const mostFacts = 8

const settingFact = ({ label, value, unit }: Setting, q: Write): Fact => ({
  label,
  value: typeof value === 'number' ? q(value, unit) : value,
})

/** Limits of the battery for chargers and loads. */
function batteryCard({ bank, q }: System, name: string): GridCell {
  return {
    title: 'Lithium battery',
    about: name,
    facts: [
      { label: 'Charge voltage', value: `${q(bank.lowV, 'V')} to ${q(bank.highV, 'V')}` },
      { label: 'Never above', value: q(bank.absoluteV, 'V') },
      { label: 'Charge stop of the BMS', value: q(bank.bmsOverV, 'V') },
      { label: 'Discharge stop of the BMS', value: q(bank.bmsUnderV, 'V') },
      { label: 'No charging below', value: q(bank.coldLimitC, '°C') },
      { label: 'Charge current, at most', value: q(bank.largestA, 'A') },
      { label: 'Discharge current, at most', value: q(bank.continuousA, 'A') },
    ],
  }
}

/** A card in pieces that have the room. */
function inPieces(cell: GridCell): GridCell[] {
  const count = Math.ceil(cell.facts.length / mostFacts)
  if (count <= 1) return [cell]
  return Array.from({ length: count }, (_, i) => ({
    ...cell,
    title: `${cell.title} (${i + 1} of ${count})`,
    facts: cell.facts.slice(i * mostFacts, (i + 1) * mostFacts),
  }))
}

/** Settings cards to stick inside the locker: the battery, each charging unit, the monitor. */
export function cardsPaper({ job, rules, shop, customerPage, letterhead }: PlainInputs): PaperBody {
  const fitted = asFitted(job)
  const system = usualSystem(factsOf(fitted, { rules, units: shop.units }))
  const foot = [shop.name, letterhead.phone].filter(Boolean).join(' · ')
  const units = settingsCards(system).map(({ unit, settings }): GridCell => ({
    title: capital(unit),
    about: '',
    facts: settings.map((setting) => settingFact(setting, system.q)),
  }))
  const cells = [batteryCard(system, fitted.candidate.name ?? ''), ...units]
    .flatMap(inPieces)
    .map((cell): GridCell => ({
      ...cell,
      about: [cell.about, `Job ${job.job.number}`, foot].filter(Boolean).join(' · '),
      ...(customerPage ? { code: codeShape(customerPage) } : {}),
    }))
  return {
    title: `Settings of ${job.job.name || 'this system'}`,
    under: [
      customerPage
        ? 'The code opens the customer’s page.'
        : 'Without a code: no customer’s page was linked when these were made.',
    ],
    sections: [
      {
        heading: 'Settings cards',
        about: `${cells.length} cards of ${cardMm.width} × ${cardMm.height} mm`,
        blocks: [{ kind: 'grid', grid: grid(paperSize(shop.units.system)), cells }],
      },
    ],
  }
}
