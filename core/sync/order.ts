import type { JobDocument } from '#core/job/document'

/** Where a version of a job stands: versions of another epoch are of data from before a backup was restored. */
export interface Place {
  readonly version: number
  readonly epoch?: string | undefined
}

/** A save that a device asks for. */
export interface SaveOrder extends Place {
  /** The id of this change: the same however often it is sent. */
  readonly change: string
  readonly document: JobDocument
  /** Ids of earlier orders of this job whose answers never came: each may have arrived. */
  readonly unsure: readonly string[]
}

/** Version of a job that is on no server yet: the order makes it. */
export const unmade = 0

/** A server's action for an order. */
export type Decision =
  /** It has carried this order out before, and nothing came after it. */
  | { readonly kind: 'repeated' }
  /** The job has changed since. `arrived` is the newest order of this device that was carried out, if any was. */
  | { readonly kind: 'overtaken'; readonly arrived: string | null }
  | { readonly kind: 'save' }

/**
 * Decides the action for an order, so that each is applied once, however often it is sent.
 * @param now state of the job on the server
 * @param carriedOut the version that an order of this job made; undefined if it was never carried out
 */
export function decide(
  order: Omit<SaveOrder, 'document'>,
  now: Required<Place>,
  carriedOut: (change: string) => number | undefined,
): Decision {
  const isSameData = order.epoch === undefined || order.epoch === now.epoch
  const made = carriedOut(order.change)
  if (made === now.version) return { kind: 'repeated' }
  if (made === undefined && isSameData && order.version === now.version) return { kind: 'save' }
  const arrived = [...order.unsure, order.change].findLast((change) => carriedOut(change) !== undefined)
  return { kind: 'overtaken', arrived: arrived ?? null }
}
