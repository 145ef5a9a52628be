// Certificates of a shop: its own authority, which phones are told to trust once, and the certificate of the server,
// which is made again where the addresses of the machine have changed or it ends soon.
import { X509Certificate } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { isIP } from 'node:net'
import { hostname, networkInterfaces } from 'node:os'
import { join } from 'node:path'

const authorityDays = 3650
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

/**
 * A key and its certificate in a folder, made where they are missing or not good any more. Only its owner can read
 * the key.
 * @param options of the package, besides algorithm and validity
 */
async function keptPair(folder, name, { isGood, commonName, days, options }) {
  const [keyFile, file] = [join(folder, `${name}.key`), join(folder, `${name}.crt`)]
  if (!existsSync(keyFile) || !existsSync(file) || !isGood(read(file))) {
    const { default: selfsigned } = await import('selfsigned')
    const made = await selfsigned.generate([{ name: 'commonName', value: commonName }], {
      ...algorithms,
      notBeforeDate: new Date(Date.now() - slackMs),
      notAfterDate: new Date(Date.now() + days * dayMs),
      ...options,
    })
    write(keyFile, made.private, 0o600)
    write(file, made.cert, 0o644)
  }
  return { key: read(keyFile), cert: read(file), file }
}

const isLasting = (cert) => Date.parse(new X509Certificate(cert).validTo) >= Date.now() + renewedBeforeMs
/** Whether a certificate holds every host, comes from the authority, and does not end soon. */
function isOfServer(cert, hosts, authority) {
  const own = new X509Certificate(cert)
  return (
    isLasting(cert) &&
    own.verify(new X509Certificate(authority).publicKey) &&
    hosts.every((host) => (isIP(host) ? own.checkIP(host) : own.checkHost(host)) !== undefined)
  )
}

/**
 * The certificate of the server for these hosts, made where it is missing.
 * @param folder made where it is missing; only its owner can read it
 * @returns key and certificate as PEM, and the certificate and file of the authority
 */
export async function certificatesIn(folder, hosts) {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const authority = await keptPair(folder, 'authority', {
    isGood: isLasting,
    commonName: `Jovial Anchor on ${hostname()}`,
    days: authorityDays,
    options: {
      extensions: [
        { name: 'basicConstraints', cA: true, pathLenConstraint: 0, critical: true },
        { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
      ],
    },
  })
  const { key, cert } = await keptPair(folder, 'server', {
    isGood: (one) => isOfServer(one, hosts, authority.cert),
    commonName: hosts[0],
    days: serverDays,
    options: {
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
    },
  })
  return { key, cert, authority: authority.cert, authorityFile: authority.file }
}
