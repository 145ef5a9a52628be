import { promiseTimeout } from '@vueuse/core'
import { isReachable } from '../device/connection'
import type { HistoryEntry } from '../../server/repositories/job-history'
import type { JobPage, JobRow, RecentJob } from '../../server/repositories/job-list'
import type { StoredJob } from '../../server/repositories/jobs'
import type { PhotoRow } from '../../server/repositories/photos'
import type { ShelfPage, ShelfRecord, WholePage } from '../../server/repositories/shelf'
import type { SheetRow } from '../../server/repositories/sheets'
import type { Preview, ShopSettings as Shop, VerdictChange } from '../../server/repositories/shop'

export type {
  HistoryEntry,
  JobPage,
  JobRow,
  PhotoRow,
  RecentJob,
  Preview,
  SheetRow,
  ShelfPage,
  ShelfRecord,
  Shop,
  StoredJob,
  VerdictChange,
  WholePage,
}

/** An error answer of the server. */
interface Refused {
  readonly error: string
  readonly fields?: Readonly<Record<string, string>>
  readonly theirs?: StoredJob
  /** The newest change of this device that was saved before. */
  readonly arrived?: string | null
  /** Missing items before something can be signed without a reason. */
  readonly gaps?: readonly string[]
}

export type Answer<T> =
  | { readonly kind: 'ok'; readonly data: T }
  | { readonly kind: 'refused'; readonly status: number; readonly refused: Refused }
  | { readonly kind: 'unreachable' }

/**
 * The error of an answer, in words; empty if there is none.
 * @param unreachable words for an unreachable server
 */
export function problemOf(answer: Answer<unknown>, unreachable: string): string {
  if (answer.kind === 'ok') return ''
  return answer.kind === 'refused' ? answer.refused.error : unreachable
}

const notFound = 404
/** Whether the server lacks the requested item. */
export const isNotFound = (answer: Answer<unknown>): boolean =>
  answer.kind === 'refused' && answer.status === notFound

const unauthorized = 401
let signedOut = (): void => undefined
/** Does something when the server says that nobody is signed in any more. */
export function whenSignedOut(then: () => void): void {
  signedOut = then
}

/**
 * Asks the server. A connection that fails, or a server that says it cannot just now, is `unreachable`:
 * nothing was done.
 */
export async function ask<T>(path: string, init: RequestInit = {}): Promise<Answer<T>> {
  const answer = await asked<T>(path, init)
  isReachable.value = answer.kind !== 'unreachable'
  return answer
}

async function asked<T>(path: string, init: RequestInit): Promise<Answer<T>> {
  try {
    const response = await fetch(path, init)
    const data: unknown = await response.json()
    if (response.ok) return { kind: 'ok', data: data as T }
    if (response.status === unauthorized) signedOut()
    return response.status >= 500
      ? { kind: 'unreachable' }
      : { kind: 'refused', status: response.status, refused: data as Refused }
  } catch {
    return { kind: 'unreachable' }
  }
}

/** Pause between read attempts, ms. */
const pausesMs = [300, 1200]

/**
 * Reads from the server, a few times before it says that it cannot be reached: where there is nothing else to show.
 */
export async function read<T>(path: string): Promise<Answer<T>> {
  let answer = await ask<T>(path)
  for (const pause of pausesMs) {
    if (answer.kind !== 'unreachable') break
    await promiseTimeout(pause)
    answer = await ask<T>(path)
  }
  return answer
}

/** Longest wait for the server where the device has an answer of its own, ms. */
const patienceMs = 4000

/** Reads from the server: patiently, unless the device keeps an answer that can be used instead. */
export const readOrGiveUp = <T>(path: string, isKept: boolean): Promise<Answer<T>> =>
  isKept ? ask<T>(path, { signal: AbortSignal.timeout(patienceMs) }) : read<T>(path)

export const asJson = (method: 'POST' | 'PUT', body: unknown): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
})
