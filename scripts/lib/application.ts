import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { once } from 'node:events'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import type { HistoryEntry } from '../../server/repositories/job-history'
import { freePort } from '../../tests/harness'
import { buildIfStale, ensureFolder, isRoot, root } from './machine.mjs'

export interface Reply<T> {
  readonly status: number
  readonly data: T
}

const kill = (pid: number | null | undefined): void => {
  if (pid) spawnSync('kill', ['-9', String(pid)])
}

/** A folder of data that these commands made; one that holds anything of another kind is left alone. */
function ownFolder(path: string): string {
  const mark = join(ensureFolder(path), 'of-a-test')
  if (readdirSync(path).length > 0 && !existsSync(mark))
    throw new Error(`${path} holds data that no test made: it is not touched`)
  writeFileSync(mark, '')
  return path
}

/** A command's exit code, its output, and its peak memory, MB. */
export interface Ran {
  readonly code: number | null
  readonly said: string
  readonly peakMb: number
}

/** The most memory a process has taken so far, MB. */
function peakOf(pid: number | undefined): number {
  try {
    return Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024
  } catch {
    return 0
  }
}

/** The application as `npm start` runs it, with data of its own, to be used while its parts are killed. */
export class Application {
  /** Error output of `npm start` and its server. */
  readonly errors: string[] = []
  private main!: ChildProcess

  private constructor(
    readonly data: string,
    private readonly port: number,
  ) {}

  /** Environment for its commands. */
  private get env(): NodeJS.ProcessEnv {
    return { ...process.env, JOVIAL_ANCHOR_DATA: this.data, DATABASE_URL: '' }
  }

  /** @param name of the folder of its data, which is removed at the end */
  static async begin(name: string): Promise<Application> {
    buildIfStale()
    const data = ownFolder(join(root, '.data', name))
    if (isRoot) spawnSync('chmod', ['755', data])
    const application = new Application(data, await freePort())
    application.start()
    return application
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`
  }

  /** Runs another command on its data, to its end. */
  async run(script: string, ...args: readonly string[]): Promise<Ran> {
    const child = spawn(process.execPath, [join(root, 'scripts', script), ...args], { env: this.env })
    let said = ''
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (text: Buffer) => (said += String(text)))
    let peakMb = 0
    const looking = setInterval(() => (peakMb = Math.max(peakMb, peakOf(child.pid))), 100)
    const [code] = (await once(child, 'exit')) as [number | null]
    clearInterval(looking)
    return { code, said, peakMb }
  }

  start(): void {
    this.main = spawn(process.execPath, [join(root, 'scripts/start.mjs')], {
      cwd: root,
      stdio: ['ignore', 'ignore', 'pipe'],
      env: { ...this.env, PORT: String(this.port) },
    })
    this.main.stderr!.on('data', (text: Buffer) => this.errors.push(String(text).trim()))
  }

  private get isDown(): boolean {
    return this.main.exitCode !== null || this.main.signalCode !== null
  }

  killServer(): void {
    const found = spawnSync('pgrep', ['-P', String(this.main.pid), '-f', 'server/index.mjs'], {
      encoding: 'utf8',
    })
    kill(Number(found.stdout.trim()) || null)
  }
  killDatabase(): void {
    try {
      kill(
        Number(readFileSync(join(this.data, 'postgres/cluster/postmaster.pid'), 'utf8').split('\n')[0]) ||
          null,
      )
    } catch {
      // It is down already.
    }
  }
  /** Kills `npm start` itself, and starts it again. */
  async killStart(): Promise<void> {
    kill(this.main.pid)
    if (!this.isDown) await once(this.main, 'exit')
    this.start()
  }
  startIfDown(): void {
    if (this.isDown) this.start()
  }

  /** Asks the server; null if there is no answer, or none that says anything. */
  async ask<T>(method: string, path: string, body?: unknown, limitMs = 10_000): Promise<Reply<T> | null> {
    try {
      const response = await fetch(this.url + path, {
        method,
        signal: AbortSignal.timeout(limitMs),
        headers: {
          connection: 'close',
          ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      })
      return { status: response.status, data: (await response.json()) as T }
    } catch {
      return null
    }
  }

  /** Asks until there is an answer. */
  async insist<T>(path: string): Promise<T> {
    for (let tries = 0; tries < 240; tries++) {
      const answer = await this.ask<T>('GET', path)
      if (answer?.status === 200) return answer.data
      await pause(500)
    }
    throw new Error(`${path} does not come back`)
  }

  /** All changes of a job, newest first. */
  async historyOf(job: string): Promise<readonly HistoryEntry[]> {
    const entries: HistoryEntry[] = []
    for (let before = ''; ; before = `?before=${entries.at(-1)!.version}`) {
      const page = await this.insist<HistoryEntry[]>(`/api/jobs/${job}/history${before}`)
      if (page.length === 0) return entries
      entries.push(...page)
    }
  }

  /** Stops it as Ctrl+C does. */
  async stop(): Promise<void> {
    this.main.kill('SIGINT')
    if (!this.isDown) await once(this.main, 'exit')
  }

  /** Stops it, and removes its data. */
  async end(): Promise<void> {
    await this.stop()
    rmSync(this.data, { recursive: true, force: true })
  }
}
