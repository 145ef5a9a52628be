import { getHeader, getQuery, setResponseStatus } from 'h3'
import { imageSize } from 'image-size'
import Joi from 'joi'
import { partKindIds } from '#core/job/fields'
import { readBytes } from '../../../../utils/body'
import { repositories } from '../../../../utils/database'
import { jobId, noSuchJob, Refusal, route, validated } from '../../../../utils/reply'
import { whoSchema } from '../../../../utils/who'

const largestBytes = 8 * 1024 * 1024
const mostPhotos = 60
const mostPixels = 12_000
const mimes = { jpg: 'image/jpeg', png: 'image/png', webp: 'image/webp' } as const

const query = Joi.object<{ who: string; station: string; name: string }>({
  who: whoSchema,
  station: Joi.valid(...partKindIds).required(),
  name: Joi.string()
    .trim()
    .max(120)
    .pattern(/^[^\p{Cc}\p{Cs}]*$/u, 'plain text')
    .default('Photo'),
})

/** What a picture is, by its content and not by its name. */
function pictureOf(data: Uint8Array): { mime: string; width: number; height: number } {
  try {
    const { type, width, height } = imageSize(data)
    if (
      Object.hasOwn(mimes, type ?? '') &&
      width > 0 &&
      height > 0 &&
      width <= mostPixels &&
      height <= mostPixels
    )
      return { mime: mimes[type as 'jpg'], width, height }
  } catch {
    /* said below */
  }
  throw new Refusal(422, 'This is not a picture: JPEG, PNG and WebP are taken')
}

/** A photo of a station: the bytes of a picture. */
export default route(async (event) => {
  const id = jobId(event)
  if (!getHeader(event, 'content-type')?.startsWith('image/'))
    throw new Refusal(415, 'Send the picture itself')
  const data = await readBytes(event, largestBytes)
  const { who, station, name } = validated(query, getQuery(event))
  const picture = pictureOf(data)
  const { jobs, photos } = await repositories(who)
  if (!(await jobs.read(id))) throw noSuchJob()
  if ((await photos.list(id)).length >= mostPhotos)
    throw new Refusal(422, `A job holds at most ${mostPhotos} photos`)
  setResponseStatus(event, 201)
  return photos.add(id, { ...picture, station, name, data })
})
