import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import { pictureOf, type Picture } from './picture'

const plain = sharp({ create: { width: 40, height: 20, channels: 3, background: '#24505e' } })
const jpeg = (): Promise<Buffer> =>
  plain
    .clone()
    .withExif({ IFD0: { Make: 'Camera' }, IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 30/1 0/1' } })
    .withMetadata({ orientation: 6 })
    .jpeg()
    .toBuffer()

async function keptOf(data: Uint8Array, type: string): Promise<Picture> {
  const picture = await pictureOf(data, type)
  if (picture === null || picture === 'too large')
    throw new Error(`It is refused: ${picture ?? 'no picture'}`)
  return picture
}

describe('a picture', () => {
  it('of more pixels than are read is called too large', async () => {
    const huge = sharp({ create: { width: 9000, height: 8000, channels: 3, background: '#fff' } })
    expect(await pictureOf(await huge.png({ compressionLevel: 9 }).toBuffer(), 'image/png')).toBe('too large')
  })

  it('keeps its pixels upright, and nothing of camera or place', async () => {
    const kept = await keptOf(await jpeg(), 'image/jpeg')
    expect(kept).toMatchObject({ mime: 'image/jpeg', width: 20, height: 40 })
    const { exif, orientation } = await sharp(kept.data).metadata()
    expect({ exif, orientation }).toEqual({ exif: undefined, orientation: undefined })
  })

  it('that is another thing besides is only a picture afterwards', async () => {
    const page = Buffer.from('<script>alert(1)</script>')
    const kept = await keptOf(Buffer.concat([await plain.clone().png().toBuffer(), page]), 'image/png')
    expect(kept.data.includes(page)).toBe(false)
  })

  it.each([
    ['a header alone', async () => (await jpeg()).subarray(0, 60), 'image/jpeg'],
    ['half of one', async () => (await jpeg()).subarray(0, 500), 'image/jpeg'],
    ['one sent as another kind', () => jpeg(), 'image/png'],
    [
      'a drawing',
      () => Promise.resolve(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>')),
      'image/svg+xml',
    ],
    ['text', () => Promise.resolve(Buffer.from('hello')), 'image/png'],
    ['nothing', () => Promise.resolve(Buffer.alloc(0)), 'image/png'],
  ])('%s is refused', async (_name, bytes, type) => expect(await pictureOf(await bytes(), type)).toBeNull())
})
