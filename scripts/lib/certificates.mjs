// Certificates of a shop: its own authority, which phones are told to trust once, and the certificate of the server,
// which is made again where the addresses of the machine have changed or it ends soon.
import { X509Certificate } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { isIP } from 'node:net'
import { hostname, networkInterfaces } from 'node:os'
import { join } from 'node:path'

const yearMs = 365 * 24 * 3600 * 1000
const authorityYears = 10
/** Phones take no certificate of a server that is valid for longer, days. */
const serverDays = 390
const dayMs = 24 * 3600 * 1000
/** A certificate is renewed so long before it ends. */
const renewedBeforeMs = 60 * dayMs
/** Clocks of phones differ. */
const slackMs = dayMs

const algorithms = { keyType: 'ec', curve: 'P-256', algorithm: 'sha256' }

/** The addresses and names under which this machine is reached on its network, the likeliest first. */
export function hostsOfMachine() {
  const addresses = Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter(({ internal, family }) => !internal && family === 'IPv4')
    .map(({ address }) => address)
  return [...addresses, hostname(), `${hostname()}.local`]
}

const read = (path) => readFileSync(path, 'utf8')
const write = (path, text, mode) => writeFileSync(path, text, { mode })

async function authorityIn(folder, generate) {
  const [keyFile, certFile] = [join(folder, 'authority.key'), join(folder, 'authority.crt')]
  const isThere = existsSync(keyFile) && existsSync(certFile)
  if (!isThere || endsSoon(read(certFile))) {
    const made = await generate([{ name: 'commonName', value: `Jovial Anchor on ${hostname()}` }], {
      ...algorithms,
      notBeforeDate: new Date(Date.now() - slackMs),
      notAfterDate: new Date(Date.now() + authorityYears * yearMs),
      extensions: [
        { name: 'basicConstraints', cA: true, pathLenConstraint: 0, critical: true },
        { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
      ],
    })
    write(keyFile, made.private, 0o600)
    write(certFile, made.cert, 0o644)
  }
  return { key: read(keyFile), cert: read(certFile), file: certFile }
}

const endsSoon = (cert) => Date.parse(new X509Certificate(cert).validTo) < Date.now() + renewedBeforeMs
/** Whether a certificate holds every host, comes from the authority, and does not end soon. */
function isGood(cert, hosts, authority) {
  const own = new X509Certificate(cert)
  return (
    !endsSoon(cert) &&
    own.verify(new X509Certificate(authority).publicKey) &&
    hosts.every((host) => (isIP(host) ? own.checkIP(host) : own.checkHost(host)) !== undefined)
  )
}

/**
 * The certificate of the server for these hosts, made where it is missing.
 * @param folder made where it is missing; only its owner can read it
 * @returns key and certificate as PEM, and the file of the authority
 */
export async function certificatesIn(folder, hosts) {
  const { default: selfsigned } = await import('selfsigned')
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const authority = await authorityIn(folder, selfsigned.generate)
  const [keyFile, certFile] = [join(folder, 'server.key'), join(folder, 'server.crt')]
  const isThere = existsSync(keyFile) && existsSync(certFile)
  if (!isThere || !isGood(read(certFile), hosts, authority.cert)) {
    const made = await selfsigned.generate([{ name: 'commonName', value: hosts[0] }], {
      ...algorithms,
      notBeforeDate: new Date(Date.now() - slackMs),
      notAfterDate: new Date(Date.now() + serverDays * dayMs),
      ca: { key: authority.key, cert: authority.cert },
      extensions: [
        { name: 'basicConstraints', cA: false },
        { name: 'keyUsage', digitalSignature: true, keyEncipherment: true, critical: true },
        { name: 'extKeyUsage', serverAuth: true },
        {
          name: 'subjectAltName',
          altNames: hosts.map((host) => (isIP(host) ? { type: 7, ip: host } : { type: 2, value: host })),
        },
      ],
    })
    write(keyFile, made.private, 0o600)
    write(certFile, made.cert, 0o644)
  }
  return {
    key: read(keyFile),
    cert: read(certFile),
    authority: authority.cert,
    authorityFile: authority.file,
  }
}
