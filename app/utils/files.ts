import { decodeText } from '#core/formats/bytes'

type TakenText =
  | { readonly name: string; readonly text: string; readonly problem?: undefined }
  | { readonly name: string; readonly problem: string }

/** Files that someone has just chosen. The entry is emptied, so that choosing the same file again is a new choice. */
export function takeFiles(event: Event): File[] {
  const input = event.target as HTMLInputElement
  const files = [...(input.files ?? [])]
  input.value = ''
  return files
}

/**
 * Text of the file that someone has just chosen, or its error in words; null if none was chosen.
 */
export async function takeText(event: Event, mostMb: number): Promise<TakenText | null> {
  const [file] = takeFiles(event)
  if (!file) return null
  const { name } = file
  if (file.size > mostMb * 1024 * 1024)
    return { name, problem: `${name} is larger than ${mostMb} MB. Nothing was imported.` }
  const decoded = decodeText(new Uint8Array(await file.arrayBuffer()))
  return decoded.ok
    ? { name, text: decoded.text }
    : { name, problem: `${name}: ${decoded.error}. Nothing was imported.` }
}

interface ReadRows {
  readonly problems: readonly { readonly line: number; readonly column?: string; readonly reason: string }[]
}

/**
 * The error of a table read from a file, in words: its first one, or that it is empty; null if it is valid.
 */
export function tableProblem(name: string, read: ReadRows, count: number): string | null {
  const first = read.problems[0]
  if (first)
    return `${name}: line ${first.line}${first.column ? `, ${first.column}` : ''}: ${first.reason}. Nothing was imported.`
  return count === 0 ? `${name}: there are no readings in it. Nothing was imported.` : null
}

/** Hands a text over as a file. */
export function handOver(name: string, text: string, type = 'text/csv'): void {
  const url = URL.createObjectURL(new Blob([text], { type }))
  Object.assign(document.createElement('a'), { href: url, download: name }).click()
  URL.revokeObjectURL(url)
}
