// npm run bench [-- PART…]: see bench.ts. The core is measured as people get it, in one bundle: run from its
// sources it is a good deal slower.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { installPackages, root } from './lib/machine.mjs'

installPackages()
// Loaded here, because packages are installed only now.
const { build } = await import('esbuild')

// As deep as the parts, so that files are found from there as from their sources.
const outfile = join(root, '.data/bench/bundle.mjs')
await build({
  entryPoints: [join(root, 'scripts/bench.ts')],
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  tsconfig: join(root, 'tsconfig.tools.json'),
  outfile,
})
const { status } = spawnSync(process.execPath, [outfile, ...process.argv.slice(2)], { stdio: 'inherit' })
process.exit(status ?? 1)
