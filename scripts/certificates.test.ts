import { X509Certificate } from 'node:crypto'
import { once } from 'node:events'
import { mkdtempSync, rmSync, statSync } from 'node:fs'
import { createServer, get } from 'node:https'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { certificatesIn } from './lib/certificates.mjs'

interface Certificates {
  readonly key: string
  readonly cert: string
  readonly authority: string
}
const own = certificatesIn as (folder: string, hosts: readonly string[]) => Promise<Certificates>

let folder: string
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'jovial-anchor-certificates-'))
})
afterAll(() => {
  rmSync(folder, { recursive: true, force: true })
})

/**
 * Asks a server with this certificate, as a phone that trusts the authority. Returns the answer or the error code.
 */
async function answerAt(host: string, { key, cert, authority }: Certificates): Promise<string> {
  const server = createServer({ key, cert }, (_, answer) => answer.end('hello')).listen(0, host)
  await once(server, 'listening')
  const { port } = server.address() as AddressInfo
  const answer = await new Promise<string>((resolve) => {
    get({ host, port, ca: authority, agent: false }, (response) => {
      response.on('data', (text: Buffer) => resolve(String(text)))
    }).on('error', (error: NodeJS.ErrnoException) => resolve(error.code ?? error.message))
  })
  server.close()
  return answer
}

describe('the certificates of a shop', () => {
  const hosts = ['127.0.0.3', 'localhost']

  it('are taken by who trusts the authority, under the addresses of the machine alone', async () => {
    const made = await own(join(folder, 'one'), hosts)
    expect(await answerAt('127.0.0.3', made)).toBe('hello')
    expect(await answerAt('127.0.0.4', made)).toBe('ERR_TLS_CERT_ALTNAME_INVALID')
    const other = await own(join(folder, 'two'), hosts)
    expect(await answerAt('127.0.0.3', { ...made, authority: other.authority })).toBe(
      'CERT_SIGNATURE_FAILURE',
    )
  })

  it('stay while they fit; for other addresses the same authority signs a new one', async () => {
    const made = await own(join(folder, 'three'), hosts)
    expect(await own(join(folder, 'three'), hosts)).toEqual(made)
    const moved = await own(join(folder, 'three'), ['127.0.0.4', ...hosts])
    expect(moved.authority).toBe(made.authority)
    expect(moved.cert).not.toBe(made.cert)
    expect(await answerAt('127.0.0.4', moved)).toBe('hello')
  })

  it('keep their keys to their owner, and are valid no longer than phones take', async () => {
    const { cert } = await own(join(folder, 'four'), hosts)
    expect(statSync(join(folder, 'four/authority.key')).mode & 0o777).toBe(0o600)
    expect(statSync(join(folder, 'four')).mode & 0o777).toBe(0o700)
    const { validFrom, validTo } = new X509Certificate(cert)
    expect((Date.parse(validTo) - Date.parse(validFrom)) / 86_400_000).toBeLessThan(398)
  })
})
