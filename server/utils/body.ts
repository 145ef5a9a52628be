import { getHeader, type H3Event } from 'h3'
import { decodeText } from '#core/formats/bytes'
import { Refusal } from './refusal'

/** A body beyond this many bytes is not even read to its end. */
const hangUpBytes = 128 * 1024 * 1024

/**
 * The bytes of a request, at most `most`. The rest is read and dropped, so that the answer arrives.
 */
export async function readBytes(event: H3Event, most: number): Promise<Uint8Array> {
  const chunks: Buffer[] = []
  let size = 0
  for await (const chunk of event.node.req as AsyncIterable<Buffer>) {
    size += chunk.length
    if (size > hangUpBytes) break
    if (size <= most) chunks.push(chunk)
    else chunks.length = 0
  }
  if (size > most) throw new Refusal(413, `This is larger than ${most / 1024 / 1024} MB, the limit here`)
  return Buffer.concat(chunks)
}

/** The content type of a request, without its parameters; in small letters. */
export const typeOf = (event: H3Event): string =>
  (getHeader(event, 'content-type') ?? '').split(';', 1)[0]!.trim().toLowerCase()

/** Only such a type is taken: one that a form or a page of another site cannot send unasked. */
function mustBe(event: H3Event, types: readonly string[]): void {
  if (!types.includes(typeOf(event))) throw new Refusal(415, `Send ${types.join(' or ')}`)
}

export async function readText(event: H3Event, most: number, types: readonly string[]): Promise<string> {
  mustBe(event, types)
  const decoded = decodeText(await readBytes(event, most))
  if (!decoded.ok) throw new Refusal(422, decoded.error)
  return decoded.text
}

/** The JSON of a request; only as `application/json`, which a page of another site cannot send unasked. */
export async function readJson(event: H3Event, most: number): Promise<unknown> {
  const text = await readText(event, most, ['application/json'])
  try {
    return JSON.parse(text)
  } catch {
    throw new Refusal(400, 'The request is not valid JSON')
  }
}
