/** The windows of this browser. Each holds a lock as long as it lives. */
const prefix = 'jovial-anchor.window.'
const ownKey = 'jovial-anchor.window'

const locks = (): LockManager | undefined => (typeof navigator === 'undefined' ? undefined : navigator.locks)
let own = ''

/** The id of this window. It stays through a reload. */
export const windowId = (): string => own

/** Holds a lock until the window ends. False where another window holds it. */
function hold(id: string): Promise<boolean> {
  const manager = locks()
  if (!manager) return Promise.resolve(true)
  return new Promise((resolve) => {
    void manager.request(prefix + id, { ifAvailable: true }, (lock) => {
      resolve(lock !== null)
      return lock ? new Promise(() => undefined) : undefined
    })
  })
}

/** Gives this window its id. A copied window has that of its original, and takes another. */
export async function enterWindow(): Promise<void> {
  const before = sessionStorage.getItem(ownKey)
  own = before !== null && (await hold(before)) ? before : crypto.randomUUID()
  if (own !== before) await hold(own)
  sessionStorage.setItem(ownKey, own)
}

/** Whether a window has ended: another one may take over its changes. */
export async function endedWindows(): Promise<(id: string) => boolean> {
  const held = (await locks()?.query())?.held ?? []
  const living = new Set(held.map(({ name }) => name))
  return (id) => id === own || !living.has(prefix + id)
}

/** Does something in one window of this browser: in the next one once that has ended. */
export function inFirstWindow(name: string, work: () => void): void {
  const manager = locks()
  if (!manager) return work()
  void manager.request(`jovial-anchor.${name}`, () => {
    work()
    return new Promise(() => undefined)
  })
}

/** Does something in one window at a time: where another one is at it, nothing. */
export async function inOneWindow(name: string, work: () => Promise<void>): Promise<void> {
  const manager = locks()
  if (!manager) return work()
  await manager.request(`jovial-anchor.${name}`, { ifAvailable: true }, (lock) => (lock ? work() : undefined))
}
