const longestSide = 2000
const quality = 0.85
/** Room for a logo on a paper, with enough pixels for print. */
const logoSide = { width: 1000, height: 400 } as const

/**
 * A PNG or SVG picture as the data address of a PNG of at most 1000 × 400 pixels; null when the browser cannot read
 * it. It is drawn as a picture: a script in an SVG file does not run, and nothing is fetched for it.
 */
export async function logoPicture(file: Blob): Promise<string | null> {
  const image = new Image()
  const address = URL.createObjectURL(file)
  try {
    image.src = address
    await image.decode()
    const [width, height] = [image.naturalWidth || logoSide.width, image.naturalHeight || logoSide.height]
    const isVector = file.type === 'image/svg+xml'
    const room = Math.min(logoSide.width / width, logoSide.height / height)
    const scale = isVector ? room : Math.min(1, room)
    const canvas = document.createElement('canvas')
    canvas.width = Math.max(1, Math.round(width * scale))
    canvas.height = Math.max(1, Math.round(height * scale))
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height)
    return canvas.toDataURL('image/png')
  } catch {
    return null
  } finally {
    URL.revokeObjectURL(address)
  }
}

/**
 * A picture as a JPEG no longer than 2000 pixels; null when the browser cannot read it. Where it was taken
 * stays out of it.
 */
export async function smallerPicture(file: Blob): Promise<Blob | null> {
  const bitmap = await createImageBitmap(file).catch(() => null)
  if (!bitmap) return null
  const scale = Math.min(1, longestSide / Math.max(bitmap.width, bitmap.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(bitmap.width * scale))
  canvas.height = Math.max(1, Math.round(bitmap.height * scale))
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
  bitmap.close()
  return new Promise((resolve) => {
    canvas.toBlob(resolve, 'image/jpeg', quality)
  })
}
