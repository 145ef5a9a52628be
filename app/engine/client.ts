import { proxy, wrap, type Remote } from 'comlink'
import type { Engine } from './engine'
import { renewed } from './renewed'

/** The engine as the page calls it: every answer is asynchronous. */
export type EngineClient = Pick<Remote<Engine>, keyof Engine>

/** An engine in a separate worker, with immediate termination. */
export interface OwnEngine {
  readonly engine: EngineClient
  readonly end: () => void
}

/** An engine that can be terminated: for runs and searches. */
export function startEngine(failed: (message: string) => void = () => {}): OwnEngine {
  const worker = new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module' })
  worker.onerror = ({ message }) => {
    failed(message)
  }
  return {
    engine: wrap<Engine>(worker),
    end: () => {
      worker.terminate()
    },
  }
}

let shared: EngineClient | null = null

/** The engine that checks the open job: one for the whole application, restarted if it fails or hangs. */
export const theEngine = (): EngineClient =>
  (shared ??= renewed((failed) => {
    const { engine: target, end } = startEngine(failed)
    return { target, end }
  }))

/** A function as an engine can call it back. */
export const asCallback = <T extends (...args: never[]) => unknown>(listener: T): T =>
  proxy(listener as never)

/** Data without the proxies that a store or a page has put inside: they cannot be sent. */
export const plain = <T>(data: T): T => JSON.parse(JSON.stringify(data)) as T
