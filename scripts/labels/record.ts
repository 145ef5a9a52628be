import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { LabelWord } from '#core/labels/word'
import { greyPhoto, PlateReader } from './recogniser'
import { samplePlate } from './sample'

/** The plates of the tests: every fifth of the bench. */
const recorded = 40
const every = 5

const packed = ({ text, confidence, box }: LabelWord): unknown[] => [
  text,
  Number(confidence.toFixed(2)),
  ...[box.left, box.top, box.right, box.bottom].map(Math.round),
]

/** Writes the recognised words of the test plates, one plate a line. */
export async function recordPlates(): Promise<void> {
  const reader = await PlateReader.start()
  const lines: string[] = []
  for (let i = 0; i < recorded; i++) {
    const { plate, photo } = await samplePlate(i * every)
    const words = await reader.words(await greyPhoto(photo))
    const { kind, part, language, truth } = plate
    lines.push(JSON.stringify({ number: i * every, kind, part, language, truth, words: words.map(packed) }))
  }
  await reader.end()
  const file = join(process.cwd(), 'core/labels/recorded-plates.json')
  writeFileSync(file, `[\n${lines.join(',\n')}\n]\n`)
  console.log(`${recorded} plates in ${file}`)
}
