import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { root } from '../scripts/lib/machine.mjs'

it('a server whose port another program has ends, and says so by its code', async () => {
  const other = createServer()
  other.listen(0, '127.0.0.1')
  await once(other, 'listening')
  const { port } = other.address() as { port: number }
  const server = spawn(process.execPath, [join(root, '.output/server/index.mjs')], {
    env: {
      ...process.env,
      DATABASE_URL: process.env.TEST_DATABASE_URL,
      NITRO_HOST: '127.0.0.1',
      NITRO_PORT: String(port),
      NODE_ENV: 'production',
    },
    stdio: 'ignore',
  })
  const [code] = (await once(server, 'exit')) as [number | null]
  other.close()
  expect(code).toBe(98)
})
