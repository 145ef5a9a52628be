import { turned, type Grey } from './grey'
import { inverted, isLightOnDark, levelled, onBlank, smoothed } from './level'
import { levelAngle } from './skew'

/** Longest side at which plates are read, px: larger is slower and reads no better. */
export const readingSide = 2000

/** A photo made ready for recognition. */
interface Prepared {
  readonly picture: Grey
  /** Its rotation, radians, clockwise. */
  readonly angle: number
}

/** Distance that counts as around a pixel, as a share of the longest side. */
const reachShare = 1 / 40

/**
 * Makes a photo of a plate ready for recognition: even light, dark print on light ground, lines level.
 * @param photo upright, at most {@link readingSide} px
 */
export function prepare(photo: Grey): Prepared {
  const even = levelled(smoothed(photo), Math.round(Math.max(photo.width, photo.height) * reachShare))
  const dark = isLightOnDark(even) ? inverted(even) : even
  const angle = levelAngle(dark)
  return {
    picture: turned(onBlank(dark), angle),
    angle,
  }
}
