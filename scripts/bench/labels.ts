import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { readLabel } from '#core/labels/read-label'
import { loadFonts } from '../labels/draw'
import type { Plate } from '../labels/plates'
import { greyPhoto, PlateReader } from '../labels/recogniser'
import { samplePlate } from '../labels/sample'
import { scorePlate, sumOf, type Score } from '../labels/score'
import { ms } from './demo-jobs'

const plates = 200
/** The number of the first plate: other numbers show whether the rules only fit known plates. */
const firstPlate = Number.parseInt(process.env.FIRST ?? '0', 10) || 0
const worst = 10
const parserTries = 20

interface Result {
  readonly number: number
  readonly plate: Plate
  readonly score: Score
  readonly readMs: number
  readonly parseMs: number
}

const share = (part: number, whole: number): string => `${((100 * part) / whole).toFixed(1)} %`

function rowOf(name: string, results: readonly Result[]): object {
  const scores = results.map(({ score }) => score)
  const values = sumOf(scores, 'values')
  return {
    plates: name,
    values,
    'right and ticked': share(sumOf(scores, 'right'), values),
    'wrong and ticked': share(sumOf(scores, 'wrong'), values),
    'not ticked': share(sumOf(scores, 'doubted') + sumOf(scores, 'doubtedWrong'), values),
    'not found': share(sumOf(scores, 'missed'), values),
  }
}

/**
 * How many values of 200 drawn and spoiled plates are read, and how fast: goals 85 % right and ticked, at most 1 %
 * wrong.
 */
export async function benchLabels(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'plates-'))
  await loadFonts(folder)
  const reader = await PlateReader.start()
  const results: Result[] = []
  for (let number = firstPlate; number < firstPlate + plates; number++) {
    const { plate, photo } = await samplePlate(number)
    const grey = await greyPhoto(photo)
    const begun = performance.now()
    const words = await reader.words(grey)
    const read = performance.now()
    for (let i = 0; i < parserTries; i++) readLabel(words, plate.part)
    const parseMs = (performance.now() - read) / parserTries
    results.push({ number, plate, score: scorePlate(plate, words), readMs: read - begun, parseMs })
  }
  await reader.end()
  rmSync(folder, { recursive: true, force: true })
  const groups = (key: 'kind' | 'language'): object[] =>
    [...new Set(results.map(({ plate }) => plate[key]))].map((name) =>
      rowOf(
        name,
        results.filter(({ plate }) => plate[key] === name),
      ),
    )
  console.table([rowOf('all', results), ...groups('kind'), ...groups('language')])
  const times = (key: 'readMs' | 'parseMs') => {
    const sorted = results.map((one) => one[key]).sort((a, b) => a - b)
    return {
      median: ms(sorted[plates / 2]!),
      p95: ms(sorted[Math.floor(plates * 0.95)]!),
      most: ms(sorted.at(-1)!),
    }
  }
  console.table({ 'reading a plate': times('readMs'), 'finding its fields': times('parseMs') })
  const lost = ({ score }: Result): number => score.wrong * 10 + score.values - score.right
  for (const { number, plate, score } of results.toSorted((a, b) => lost(b) - lost(a)).slice(0, worst))
    console.log(`Plate ${number}, ${plate.kind}, ${plate.language}: ${score.notes.join('; ')}`)
}
