// npm run plates -- FOLDER [COUNT]: draws rating plates, with their values next to them.
// npm run plates -- record: writes the recognised words of the test plates.
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { loadFonts } from './labels/draw'
import { recordPlates } from './labels/record'
import { samplePlate } from './labels/sample'

const usualCount = 200

async function drawAll(folder: string, count: number): Promise<void> {
  mkdirSync(folder, { recursive: true })
  for (let number = 0; number < count; number++) {
    const { plate, photo } = await samplePlate(number)
    writeFileSync(join(folder, `${number}.jpg`), photo)
    writeFileSync(join(folder, `${number}.json`), `${JSON.stringify(plate, null, 2)}\n`)
  }
  console.log(`${count} plates in ${folder}`)
}

async function main([folder, count]: readonly string[]): Promise<void> {
  if (!folder) {
    console.error('Usage: npm run plates -- FOLDER [COUNT], or npm run plates -- record')
    process.exitCode = 2
    return
  }
  await loadFonts(join(process.cwd(), '.data/plates/fonts'))
  if (folder === 'record') await recordPlates()
  else await drawAll(folder, count ? Math.max(1, Number.parseInt(count, 10) || usualCount) : usualCount)
}

void main(process.argv.slice(2))
