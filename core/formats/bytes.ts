/** The one platform class this needs; browsers and Node.js both have it. */
declare const TextDecoder: new (
  label: string,
  options: { fatal: boolean },
) => { decode(bytes: Uint8Array): string }

const signatures: readonly (readonly [name: string, bytes: readonly number[]])[] = [
  ['a picture (PNG)', [0x89, 0x50, 0x4e, 0x47]],
  ['a picture (JPEG)', [0xff, 0xd8, 0xff]],
  ['a PDF', [0x25, 0x50, 0x44, 0x46]],
  ['a ZIP archive', [0x50, 0x4b, 3, 4]],
]

export type DecodedText =
  { readonly ok: true; readonly text: string } | { readonly ok: false; readonly error: string }

/** Text of a file in UTF-8, or what it is instead. */
export function decodeText(bytes: Uint8Array): DecodedText {
  const found = signatures.find(([, start]) => start.every((byte, i) => bytes[i] === byte))
  if (found) return { ok: false, error: `This is ${found[0]}, whatever its name says` }
  try {
    return { ok: true, text: new TextDecoder('utf-8', { fatal: true }).decode(bytes) }
  } catch {
    return { ok: false, error: 'This is not text in UTF-8' }
  }
}
