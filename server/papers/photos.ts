import sharp from 'sharp'
import { photosIn } from '#core/job/paper-photos'
import type { PaperPhoto } from '#core/papers/blocks'
import type { StoredJob } from '../repositories/jobs'
import type { Photos } from '../repositories/photos'

/** Longest side of a photo in a paper, pixels: two fit next to each other at 300 dots per inch. */
const longestSide = 1100
const quality = 78

/** A photo as JPEG in a data address: it is frozen with its paper. */
async function frozen(data: Uint8Array): Promise<string> {
  const jpeg = await sharp(data)
    .resize({ width: longestSide, height: longestSide, fit: 'inside', withoutEnlargement: true })
    .flatten({ background: '#fff' })
    .jpeg({ quality })
    .toBuffer()
  return `data:image/jpeg;base64,${jpeg.toString('base64')}`
}

/** The photos that a paper of a job shows, with their captions. A photo that was deleted is left out. */
export async function photosOfPaper(
  photos: Photos,
  { id: job, document }: StoredJob,
  paper: string,
): Promise<readonly PaperPhoto[]> {
  if (!document.paperPhotos) return []
  const chosen = photosIn(document.paperPhotos, paper, await photos.list(job))
  const all = await Promise.all(
    chosen.map(async ({ photo: { id }, caption }) => {
      const picture = await photos.read(job, id)
      return picture && { source: await frozen(picture.data), caption }
    }),
  )
  return all.filter((photo) => photo !== null)
}
