import type { FuseFamily } from '#core/physics/fuses'
import { nearFuseFamily } from '#core/system/cables'
import type { View } from '#core/system/scene'
import type { PartState } from '../network'
import type { Builder } from './builder'

export type Cable = View<'conductors'>

interface FoundFuse {
  readonly state: PartState
  readonly family: FuseFamily
  readonly ratedA: number
  readonly aicA: number | null
}

/** The fuse of a surveyed cable nearest the battery; empty if unknown. */
export function nearFuse(build: Builder, cable: Cable | null): Partial<FoundFuse> {
  if (!cable || cable.$entered('fuseA') === null) return {}
  const family = nearFuseFamily(cable)
  return {
    state: stateOfFuse(build, cable, 'fuse'),
    ratedA: cable.fuseA,
    aicA: cable.fuseAicA,
    ...(cable.$entered('fuseKind') === null || family === null ? {} : { family }),
  }
}

/** The fuse of a surveyed cable nearest its source; nothing if there is none. */
export function farFuse(build: Builder, cable: Cable | null): Partial<FoundFuse> {
  if (!cable || cable.farFuseKind === 'none' || cable.farFuseA === null) return {}
  return {
    state: stateOfFuse(build, cable, 'farFuse'),
    family: cable.farFuseKind,
    ratedA: cable.farFuseA,
    aicA: cable.farFuseAicA,
  }
}

/** A fuse of a surveyed cable is new if the answer changes its rating or its family. */
const stateOfFuse = (build: Builder, { $path }: Cable, end: 'fuse' | 'farFuse'): PartState =>
  [`${$path}/${end}A`, `${$path}/${end}Kind`].some((path) => build.isNew(path)) ? 'new' : 'found'
