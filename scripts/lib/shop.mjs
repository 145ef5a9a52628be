// npm start -- --shop: the address on the network, HTTPS with the shop's own certificate, and the link with which the
// first owner begins.
import { randomBytes } from 'node:crypto'
import { existsSync } from 'node:fs'
import { get as getHttp } from 'node:http'
import { get as getHttps } from 'node:https'
import { join } from 'node:path'
import { certificatesIn, hostsOfMachine } from './certificates.mjs'
import { giveUp } from './machine.mjs'

const everyAddress = '0.0.0.0'

/** The mode of a start, from its arguments or the switch under People: one machine, or a shop. */
export async function modeOf(args, folder) {
  const switchFile = join(folder, 'shop-mode')
  const mode = wantsShop(args, switchFile) ? await shopMode(folder) : oneMachine
  return { ...mode, env: { ...mode.env, SHOP_SWITCH: switchFile } }
}

/**
 * Whether a start is for a shop.
 * @param args `--shop`, `--one-machine`, or nothing: then the switch decides
 */
export function wantsShop(args, switchFile) {
  const unknown = args.find((arg) => !['--shop', '--one-machine', '--empty'].includes(arg))
  if (unknown !== undefined)
    giveUp(`Unknown argument ${unknown}. Use npm start, with -- --shop, -- --one-machine or -- --empty`)
  if (args.includes('--one-machine')) return false
  return args.includes('--shop') || existsSync(switchFile)
}

const oneMachine = {
  isShop: false,
  host: '127.0.0.1',
  urlAt: (port) => `http://127.0.0.1:${port}`,
  env: {},
  /** Asks the server of this start itself. */
  ask: (port, path) => answerOf(getHttp, { host: '127.0.0.1', port, path }),
  announce: (url) => console.log(`Jovial Anchor is at ${url}`),
}

async function shopMode(folder) {
  const host = process.env.HOST ?? everyAddress
  const origin = originWanted()
  const hosts = host === everyAddress ? hostsOfMachine() : [host]
  const setupCode = randomBytes(24).toString('base64url')
  const certificates = origin
    ? null
    : await certificatesIn(join(folder, 'certificates'), [...hosts, 'localhost', '127.0.0.1'])
  const [get, ca] = certificates ? [getHttps, certificates.authority] : [getHttp, undefined]
  return {
    isShop: true,
    host,
    urlAt: (port) => origin ?? `https://${hosts[0]}:${port}`,
    env: {
      SHOP_MODE: 'yes',
      SHOP_HOSTS: hosts.join(','),
      SETUP_CODE: setupCode,
      ...(origin ? { ORIGIN: origin } : {}),
      ...(certificates
        ? {
            NITRO_SSL_KEY: certificates.key,
            NITRO_SSL_CERT: certificates.cert,
            SHOP_AUTHORITY: certificates.authorityFile,
          }
        : {}),
    },
    ask: (port, path) => answerOf(get, { host: host === everyAddress ? '127.0.0.1' : host, port, path, ca }),
    async announce(url, port) {
      const session = JSON.parse((await this.ask(port, '/api/session')).text)
      const link = session.needsOwner ? `${url}/join#setup=${setupCode}` : url
      const { renderUnicodeCompact } = await import('uqr')
      console.log(renderUnicodeCompact(link))
      if (session.needsOwner) console.log(`The owner begins here: ${link}`)
      if (certificates) console.log(`Phones must trust the certificate once: ${url}/trust shows how.`)
      console.log(`Jovial Anchor is at ${url}`)
    },
  }
}

/** The address that a proxy serves, from `ORIGIN`; undefined if this server serves HTTPS itself. */
function originWanted() {
  const { ORIGIN } = process.env
  if (!ORIGIN) return undefined
  const isOrigin = URL.canParse(ORIGIN) && new URL(ORIGIN).origin === ORIGIN
  if (!isOrigin || !ORIGIN.startsWith('https://'))
    giveUp(`ORIGIN must be an address like https://bench.example, not ${ORIGIN}`)
  return ORIGIN
}

/** Status, headers and text of an answer. @throws where there is none */
function answerOf(get, { host, port, path, ca }) {
  return new Promise((resolve, reject) => {
    const asked = get(
      { host, port, path, ca, agent: false, headers: { accept: 'text/html, application/json' } },
      (answer) => {
        let text = ''
        answer.setEncoding('utf8')
        answer.on('data', (piece) => (text += piece))
        answer.on('end', () => resolve({ status: answer.statusCode, headers: answer.headers, text }))
        answer.on('error', reject)
      },
    )
    asked.on('error', reject)
  })
}
