import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import { pictureOf } from './picture'

const plain = sharp({ create: { width: 40, height: 20, channels: 3, background: '#24505e' } })
const jpeg = (): Promise<Buffer> =>
  plain
    .clone()
    .withExif({ IFD0: { Make: 'Camera' }, IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 30/1 0/1' } })
    .withMetadata({ orientation: 6 })
    .jpeg()
    .toBuffer()

describe('a picture', () => {
  it('keeps its pixels upright, and nothing of camera or place', async () => {
    const kept = await pictureOf(await jpeg(), 'image/jpeg')
    expect(kept).toMatchObject({ mime: 'image/jpeg', width: 20, height: 40 })
    const { exif, orientation } = await sharp(kept!.data).metadata()
    expect({ exif, orientation }).toEqual({ exif: undefined, orientation: undefined })
  })

  it('that is another thing besides is only a picture afterwards', async () => {
    const page = Buffer.from('<script>alert(1)</script>')
    const kept = await pictureOf(Buffer.concat([await plain.clone().png().toBuffer(), page]), 'image/png')
    expect(kept?.data.includes(page) ?? false).toBe(false)
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
