import type { View } from '#core/system/scene'

export type Cable = View<'conductors'>

/** The fuse of a surveyed cable nearest the battery; nothing where it is not known. */
export function nearFuse(
  cable: Cable | null,
): Partial<{ state: 'found'; family: Cable['fuseKind']; ratedA: number; aicA: number | null }> {
  if (!cable || cable.$entered('fuseA') === null) return {}
  return {
    state: 'found',
    ratedA: cable.fuseA,
    aicA: cable.fuseAicA,
    ...(cable.$entered('fuseKind') === null ? {} : { family: cable.fuseKind }),
  }
}

/** The fuse of a surveyed cable nearest its source; nothing where there is none. */
export function farFuse(cable: Cable | null): ReturnType<typeof nearFuse> {
  if (!cable || cable.farFuseKind === 'none' || cable.farFuseA === null) return {}
  return { state: 'found', family: cable.farFuseKind, ratedA: cable.farFuseA, aicA: cable.farFuseAicA }
}
