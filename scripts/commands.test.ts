import { execFile } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'
import { describe, expect, it } from 'vitest'
import { long } from '#core/testing'

const root = fileURLToPath(new URL('..', import.meta.url))
const sidecar = 'demo/jobs/0433-sidecar-outfit.json'

/** What a command of the core alone prints, as JSON. */
async function printed(script: string, ...args: readonly string[]): Promise<Record<string, unknown>> {
  const { stdout } = await promisify(execFile)(
    process.execPath,
    ['node_modules/tsx/dist/cli.mjs', `scripts/${script}.ts`, ...args],
    { cwd: root, maxBuffer: 64 * 1024 * 1024 },
  )
  return JSON.parse(stdout) as Record<string, unknown>
}

describe('a command of the core alone prints JSON', () => {
  it('assess', async () => {
    const { verdict, headline } = await printed('assess', sidecar)
    expect({ verdict, headline }).toEqual({ verdict: 'does-not-suit', headline: 'Does not suit' })
  })
  it('simulate', long, async () => {
    const { run, totals } = await printed('simulate', sidecar, '--run', 'mains-night')
    expect(run).toBe('mains-night')
    expect(totals).toHaveProperty('endSoc')
  })
  it('specify', long, async () => {
    const answers = (await printed('specify', sidecar)) as unknown as readonly Record<string, unknown>[]
    expect(answers.length).toBeGreaterThan(0)
    for (const key of ['name', 'verdict', 'cost', 'unpriced', 'hours', 'conditions', 'steps', 'parts'])
      expect(answers[0]).toHaveProperty(key)
  })
  it('paper', long, async () => {
    const { title, sections } = await printed('paper', sidecar, '--paper', 'summary')
    expect(String(title).length).toBeGreaterThan(0)
    expect((sections as unknown[]).length).toBeGreaterThan(2)
  })
  it('network', long, async () => {
    expect(await printed('network', 'network', sidecar, '--case', 'rest')).toHaveProperty('posts')
  })
})
