import { chanceOf } from '#core/commissioning/chance'
import { drawPlate } from './draw'
import { PlateMaker, type Plate } from './plates'
import { languages, plateKinds } from './words'

const firstSeed = 1000

/** A plate by its number: kinds and languages take turns. */
export async function samplePlate(
  number: number,
): Promise<{ readonly plate: Plate; readonly photo: Buffer }> {
  const chance = chanceOf(firstSeed + number)
  const kind = plateKinds[number % plateKinds.length]!
  const language = languages[Math.floor(number / plateKinds.length) % languages.length]!
  const plate = new PlateMaker(chance, kind, language).make()
  // Loaded here: fonts have to be in place before anything draws.
  const { photographed } = await import('./spoil')
  return { plate, photo: await photographed(drawPlate(plate, chance), chance) }
}
