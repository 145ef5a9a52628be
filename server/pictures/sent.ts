import type { H3Event } from 'h3'
import { readBytes, typeOf } from '../utils/body'
import { Refusal } from '../utils/refusal'
import { mostPixels, pictureOf, type Picture } from './picture'

/** Content types of a picture that may be sent. */
export const pictureTypes = ['image/jpeg', 'image/png', 'image/webp']

const largestBytes = 8 * 1024 * 1024

/**
 * The picture that is the body of a request.
 * @throws a refusal that says why it is none
 */
export async function sentPicture(event: H3Event): Promise<Picture> {
  const type = typeOf(event)
  if (!type.startsWith('image/')) throw new Refusal(415, 'Send an image file')
  const picture = await pictureOf(await readBytes(event, largestBytes), type)
  if (picture === 'too large')
    throw new Refusal(422, `This picture has more than ${mostPixels / 1e6} million pixels`)
  if (!picture) throw new Refusal(422, 'This is not a complete picture. Use JPEG, PNG or WebP')
  return picture
}
