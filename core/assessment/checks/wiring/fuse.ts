import type { Subjects } from '#core/assessment/check'
import { fuseInterruptA, type FuseFamily } from '#core/physics/fuses'
import type { Fitting, Post } from '#core/wiring/network'
import { highestChargeV } from '#core/wiring/charge-voltage'
import { wiringIn, type Wiring } from '#core/wiring/wiring'
import type { System } from '#core/system/system'

/** A fuse of the wiring with its family and rating. */
export interface Fused {
  readonly wiring: Wiring
  readonly post: Post
  readonly fitting: Fitting
  readonly family: FuseFamily
  readonly ratedA: number
}

/** A fuse of the wiring with its family and rating; null for any other fitting. */
export function fuseAt({ id }: Subjects['fitting'], system: System): Fused | null {
  const wiring = wiringIn(system)
  const post = wiring.ways.post(id)
  const fitting = post?.fitting
  if (post?.kind !== 'fuse' || !fitting?.family || fitting.ratedA === null) return null
  return { wiring, post, fitting, family: fitting.family, ratedA: fitting.ratedA }
}

/** Values of a fuse of another family at a post, its usual interrupt rating with it. */
export const ofFamily = (family: FuseFamily, post: Post): Readonly<Record<string, string | number>> => ({
  family,
  aicA: fuseInterruptA(family, highestChargeV(post)),
})
