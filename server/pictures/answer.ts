import { setResponseHeaders, type H3Event } from 'h3'
import { noSuchPhoto } from '../utils/reply'

/** A picture as an answer: it never changes under its address. @throws 404 where there is none */
export function answerPicture(
  event: H3Event,
  photo: { readonly mime: string; readonly data: Uint8Array } | null,
): Uint8Array {
  if (!photo) throw noSuchPhoto()
  setResponseHeaders(event, {
    'content-type': photo.mime,
    'cache-control': 'private, max-age=31536000, immutable',
  })
  return photo.data
}
