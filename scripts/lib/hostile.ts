import { readdirSync } from 'node:fs'
import { join, relative } from 'node:path'

/** A route as the file tree has it. */
export interface Route {
  readonly method: string
  /** With its parameters in brackets: `/api/jobs/[id]`. */
  readonly path: string
  /** From the folder of the routes. */
  readonly file: string
}

/** Every route of the server, found from its files. */
export function routesIn(folder: string): readonly Route[] {
  const files = readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && entry.name.endsWith('.ts'))
    .map((entry) => relative(folder, join(entry.parentPath, entry.name)))
  return files.flatMap((file) => {
    const found = /^(.*)\.(get|post|put|delete)\.ts$/.exec(file)
    return found
      ? [
          {
            method: found[2]!.toUpperCase(),
            path: `/api/${found[1]!.replace(/(^|\/)index$/, '')}`.replace(/\/$/, ''),
            file,
          },
        ]
      : []
  })
}

/** A source of chance that gives the same again for the same seed (mulberry32). */
export function chanceOf(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296
  }
}

const words = [
  '',
  ' ',
  '0',
  '-1',
  '1e999',
  'NaN',
  'null',
  'true',
  '__proto__',
  'constructor',
  'toString',
  '../../etc/passwd',
  '%00',
  '\u0000',
  '\uD800',
  '\u202Eabc',
  '"><script>alert(1)</script>',
  "'; drop table job; --",
  '=1+2',
  '2026-02-30',
  '00000000-0000-0000-0000-000000000000',
  'a'.repeat(5000),
  '('.repeat(3000),
  '['.repeat(3000),
  '{"a":'.repeat(1500),
  '🛥️'.repeat(400),
  '9'.repeat(400),
  ',;\t"\n'.repeat(300),
]

/** A hostile word. */
export const hostileWord = (chance: () => number): string => words[Math.floor(chance() * words.length)]!

/** Something hostile: a word, a number, nothing, or a thing of such things. */
export function hostile(chance: () => number, depth = 0): unknown {
  const at = chance()
  if (at < 0.35) return hostileWord(chance)
  if (at < 0.5) return [0, -1, 1e308, 2 ** 53, 0.1, -0, 2_147_483_648][Math.floor(chance() * 7)]
  if (at < 0.6) return [null, true, false, [], {}][Math.floor(chance() * 5)]
  if (depth > 3) return null
  const count = Math.floor(chance() * 4)
  if (at < 0.8) return Array.from({ length: count }, () => hostile(chance, depth + 1))
  return Object.fromEntries(
    Array.from({ length: count }, () => [hostileWord(chance).slice(0, 60), hostile(chance, depth + 1)]),
  )
}

/** Data that is nearly good: something in it is hostile, missing or twice. */
export function spoilt(value: unknown, chance: () => number): unknown {
  if (value === null || typeof value !== 'object' || chance() < 0.06) return hostile(chance)
  const keys = Object.keys(value)
  if (keys.length === 0) return hostile(chance)
  const key = keys[Math.floor(chance() * keys.length)]!
  const copy: Record<string, unknown> = { ...(value as Record<string, unknown>) }
  if (chance() < 0.15) Reflect.deleteProperty(copy, key)
  else copy[key] = spoilt(copy[key], chance)
  return Array.isArray(value) ? Object.values(copy) : copy
}

/** A text that is nearly good: cut, doubled, or with something hostile in it. */
export function spoiltText(text: string, chance: () => number): string {
  const at = Math.floor(chance() * text.length)
  const word = hostileWord(chance)
  const how = chance()
  if (how < 0.25) return text.slice(0, at)
  if (how < 0.5) return text.slice(0, at) + word + text.slice(at)
  if (how < 0.75) return text.slice(0, at) + word + text.slice(at + word.length)
  return text.slice(0, at) + text.slice(Math.max(0, at - 200))
}
