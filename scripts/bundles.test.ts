import { expect, it } from 'vitest'
import { bundles } from './lib/bundles.mjs'

const page = (name: string): string => `/here/app/pages/${name}.vue`
const [list, bench, prove, rules] = ['index', 'jobs/[id]/index', 'jobs/[id]/prove', 'rules'].map(page)

/** What each module imports; those that are imported when they are needed are marked. */
const imports: Readonly<Record<string, readonly string[]>> = {
  '/here/entry.ts': ['/here/core/units.ts'],
  [list!]: ['/here/app/mark.vue', '/here/core/units.ts'],
  [bench!]: ['/here/app/mark.vue', '/here/core/remedies.ts', '/here/core/words.ts', '/here/app/ruler.vue'],
  [prove!]: ['/here/core/remedies.ts', '/here/core/tests.ts'],
  [rules!]: ['/here/core/words.ts', '/here/core/tests.ts', '/here/node_modules/table/index.js'],
}
const ids = [...new Set([...Object.keys(imports), ...Object.values(imports).flat()])]
const graph = {
  getModuleIds: () => ids.values(),
  getModuleInfo: (id: string) => ({
    isEntry: id.endsWith('entry.ts'),
    dynamicImporters: id.endsWith('.vue') && id.includes('pages') ? ['/here/entry.ts'] : [],
    importedIds: imports[id] ?? [],
  }),
}

it('puts the bench’s shared code into one file each for the list, other pages, and other pages of a job', () => {
  const bundleOf = bundles()
  const of = Object.fromEntries(ids.map((id) => [id.split('/').at(-1), bundleOf(id, graph)]))
  expect(of).toMatchObject({ 'mark.vue': 'shared', 'words.ts': 'parts', 'remedies.ts': 'job' })
  // The build itself knows best where all pages need something, where one does, or where the bench does not.
  for (const name of ['units.ts', 'ruler.vue', 'tests.ts', 'index.js', 'prove.vue'])
    expect(of[name], name).toBeUndefined()
})
