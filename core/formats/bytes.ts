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

type DecodedText =
  { readonly ok: true; readonly text: string } | { readonly ok: false; readonly error: string }

/** Marks at the beginning of a text in UTF-16, as spreadsheets write it. */
const utf16Marks: readonly (readonly [encoding: string, bytes: readonly number[]])[] = [
  ['utf-16le', [0xff, 0xfe]],
  ['utf-16be', [0xfe, 0xff]],
]

/** Text of a file in UTF-8, or in UTF-16 with its mark; or the kind of file it is instead. */
export const decodeText = (bytes: Uint8Array): DecodedText =>
  decodeAs(bytes, []) ?? { ok: false, error: 'This is not UTF-8 or UTF-16 text' }

/**
 * The same of a table that somebody looks over: also in the encoding of old spreadsheets in western Europe, which
 * gives letters to any bytes.
 */
export function decodeTable(bytes: Uint8Array): DecodedText {
  const decoded = decodeAs(bytes, bytes.includes(0) ? [] : ['windows-1252'])
  return decoded ?? { ok: false, error: 'This is no text' }
}

/** Text in the first encoding that fits; null where none does. */
function decodeAs(bytes: Uint8Array, others: readonly string[]): DecodedText | null {
  const begins = ([, start]: readonly [string, readonly number[]]): boolean =>
    start.every((byte, i) => bytes[i] === byte)
  const found = signatures.find(begins)
  if (found) return { ok: false, error: `This is ${found[0]}, unlike its name` }
  for (const encoding of [utf16Marks.find(begins)?.[0] ?? 'utf-8', ...others]) {
    try {
      return { ok: true, text: new TextDecoder(encoding, { fatal: true }).decode(bytes) }
    } catch {
      // The next encoding is tried.
    }
  }
  return null
}
