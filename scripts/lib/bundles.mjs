const list = 'app/pages/index.vue'
const bench = 'app/pages/jobs/[id]/index.vue'
/** Pages of a job stand in this folder. */
const ofJob = 'app/pages/jobs/'

/** For each module id, the entry points that load it: the entry, and all dynamic imports. */
function loadedFor({ getModuleIds, getModuleInfo }) {
  const roots = new Map()
  const visit = (id, root) => {
    const reachedFrom = roots.get(id) ?? roots.set(id, new Set()).get(id)
    if (reachedFrom.has(root)) return
    reachedFrom.add(root)
    for (const imported of getModuleInfo(id)?.importedIds ?? []) visit(imported, root)
  }
  for (const id of getModuleIds()) {
    const { isEntry, dynamicImporters } = getModuleInfo(id)
    if (isEntry || dynamicImporters.length > 0) visit(id, id)
  }
  return roots
}

/**
 * The build file of a module. By default, the build makes a file for each set of pages with common code: the bench
 * would need forty, and each costs a slow phone several milliseconds. Code shared with the list, with other pages,
 * or with other pages of a job is one file each.
 */
export function bundles() {
  let roots
  return (id, graph) => {
    // A package often has one module that imports all others, of which the build then drops most.
    if (id.includes('node_modules')) return undefined
    roots ??= loadedFor(graph)
    const reachedFrom = [...(roots.get(id) ?? [])]
    if (reachedFrom.length < 2 || reachedFrom.some((root) => graph.getModuleInfo(root).isEntry))
      return undefined
    const isFor = (page) => reachedFrom.some((root) => root.endsWith(page))
    if (isFor(list)) return 'shared'
    if (!isFor(bench)) return undefined
    const isOfJobs = reachedFrom.every((root) => root.includes(ofJob) || !root.includes('app/pages/'))
    return isOfJobs ? 'job' : 'parts'
  }
}
