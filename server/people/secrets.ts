import { createHash, randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto'

const tokenBytes = 32
/** A secret that only its holder knows, for a cookie or a link. */
export const newToken = (): string => randomBytes(tokenBytes).toString('base64url')
/** The stored hash of a token. It cannot be reversed. */
export const hashOfToken = (token: string): Buffer => createHash('sha256').update(token).digest()

/** Cost of a password hash: some 50 ms and 32 MB, so that guessing is slow. */
const cost = { N: 2 ** 15, r: 8, p: 1 }
const maxmem = 64 * 1024 * 1024
const keyBytes = 32

const derive = (password: string, salt: Buffer, options: ScryptOptions): Promise<Buffer> =>
  new Promise((resolve, reject) => {
    scrypt(password.normalize('NFKC'), salt, keyBytes, { ...options, maxmem }, (error, key) => {
      if (error) reject(error)
      else resolve(key)
    })
  })

/** A password as it is kept: `scrypt`, its cost, salt and key. */
export async function hashOfPassword(password: string): Promise<string> {
  const salt = randomBytes(16)
  const key = await derive(password, salt, cost)
  return ['scrypt', cost.N, cost.r, cost.p, salt.toString('base64'), key.toString('base64')].join('$')
}

/** Whether a password is the one that was kept. @param kept null takes as long and is never right */
export async function isPassword(password: string, kept: string | null): Promise<boolean> {
  const [, N, r, p, salt, key] = (kept ?? '').split('$')
  if (key === undefined) {
    await derive(password, Buffer.alloc(16), cost)
    return false
  }
  const options = { N: Number(N), r: Number(r), p: Number(p) }
  const given = await derive(password, Buffer.from(salt!, 'base64'), options)
  return timingSafeEqual(given, Buffer.from(key, 'base64'))
}
