import type { Group, Migration } from './migration'

const numberIn = (id: string): number => Number(/(\d+)$/.exec(id)?.[1] ?? 0)

/** A noted change under its new name. Anything else is left for the check of the file to refuse. */
const moved = (change: unknown): unknown => {
  const path = (change as { path?: unknown } | null)?.path
  return typeof path === 'string' ? { ...(change as object), path: twoToThree.path(path) } : change
}

/**
 * Version 2 had one starting battery, without an alternator of its own: it becomes the battery of the first
 * one.
 */
export const twoToThree: Migration = {
  job({ startingBattery, ...job }) {
    const [first] = Object.keys((job.alternators ?? {}) as Group).sort((a, b) => numberIn(a) - numberIn(b))
    const from = first === undefined ? {} : { from: `alternators/${first}` }
    const { startingBattery: note, ...notes } = (job.notes ?? {}) as Group
    const specified = job.specified as { changes?: unknown } | null | undefined
    const changes = Array.isArray(specified?.changes) ? specified.changes.map(moved) : null
    return {
      ...job,
      version: 3,
      startingBatteries: { 'starting-1': { ...from, ...(startingBattery as Group | undefined) } },
      notes: note === undefined ? notes : { ...notes, startingBatteries: note },
      ...(changes ? { specified: { ...specified, changes } } : {}),
    }
  },
  path: (path) => {
    if (path === 'notes/startingBattery') return 'notes/startingBatteries'
    return path.replace(/^startingBattery(?=\/|$)/, 'startingBatteries/starting-1')
  },
}
