import { long } from '#core/testing'
import { describe, expect, it } from 'vitest'
import { beforeTurn, graymap, greyOf, scaled, shrunk, turned, type Grey } from './grey'
import { isLightOnDark, levelled } from './level'
import { prepare } from './prepare'
import { printJobOf, wordsOfPasses } from './print'

const [width, height] = [800, 500]
/** Rows of dark dashes on a light ground, turned clockwise by an angle. */
function plate(
  angle: number,
  light: (x: number, y: number) => number = () => 1,
  ink = 40,
  ground = 200,
): Grey {
  const data = new Uint8Array(width * height)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [dx, dy] = [x - width / 2, y - height / 2]
      const [u, v] = [
        dx * Math.cos(angle) + dy * Math.sin(angle),
        dy * Math.cos(angle) - dx * Math.sin(angle),
      ]
      const isInk = Math.abs(u) < 250 && Math.abs(v) < 170 && (v + 1000) % 50 < 18 && (u + 1000) % 23 < 13
      data[y * width + x] = (isInk ? ink : ground) * light(x, y)
    }
  return { width, height, data }
}
const degree = Math.PI / 180
const shareDark = ({ data }: Grey): number => [...data].filter((value) => value < 90).length / data.length

describe('a photo of a plate', () => {
  it('is turned back by the angle that it lies at', long, () => {
    for (const angle of [-8, -3, 0, 5.4, 9])
      expect(prepare(plate(angle * degree)).angle / degree, String(angle)).toBeCloseTo(-angle, 0)
  })

  it('in uneven light gives print as dark as one in even light', () => {
    const even = shareDark(prepare(plate(0)).picture)
    const shaded = shareDark(prepare(plate(0, (x) => 0.35 + (0.65 * x) / width)).picture)
    expect(even).toBeGreaterThan(0.05)
    expect(shaded / even).toBeGreaterThan(0.85)
    expect(shaded / even).toBeLessThan(1.15)
  })

  it('with light print is made dark print', long, () => {
    expect(isLightOnDark(levelled(plate(0, undefined, 220, 40), 30))).toBe(true)
    expect(isLightOnDark(levelled(plate(0), 30))).toBe(false)
    const dark = shareDark(prepare(plate(0, undefined, 220, 40)).picture)
    expect(dark / shareDark(prepare(plate(0)).picture)).toBeCloseTo(1, 0)
  })

  it('that is blank gives nothing dark, and one of a single pixel is no fault', () => {
    expect(shareDark(prepare({ width: 60, height: 40, data: new Uint8Array(2400).fill(130) }).picture)).toBe(
      0,
    )
    expect(prepare({ width: 1, height: 1, data: new Uint8Array(1) }).picture.data).toHaveLength(1)
  })

  it('is read twice, and boxes of both passes are in its own pixels', () => {
    const job = printJobOf(plate(0))
    expect(new TextDecoder().decode(job.passes[0].file.subarray(0, 15))).toBe('P5\n800 500\n255\n')
    expect(new TextDecoder().decode(job.passes[1].file.subarray(0, 10))).toBe('P5\n560 350')
    const word = { text: '14.6', confidence: 60, bbox: { x0: 100, y0: 50, x1: 200, y1: 80 } }
    const small = { ...word, bbox: { x0: 70, y0: 35, x1: 140, y1: 56 } }
    expect(wordsOfPasses(job, [[word], [small]])).toEqual([
      { text: '14.6', confidence: 0.96, box: { left: 100, top: 50, right: 200, bottom: 80 } },
    ])
  })
})

describe('pictures in grey', () => {
  const grey: Grey = { width: 4, height: 2, data: Uint8Array.of(0, 0, 100, 100, 0, 0, 100, 100) }

  it('come from colours by their brightness', () => {
    expect([...greyOf(2, 1, Uint8ClampedArray.of(255, 255, 255, 255, 0, 255, 0, 255)).data]).toEqual([
      255, 149,
    ])
  })

  it('are shrunk, scaled and written', () => {
    expect([...shrunk(grey, 2).data]).toEqual([0, 100])
    expect(scaled(grey, 0.5)).toMatchObject({ width: 2, height: 1 })
    expect([...scaled(grey, 0.5).data]).toEqual([0, 100])
    expect(graymap(grey)).toHaveLength('P5\n4 2\n255\n'.length + 8)
  })

  it('turn about their middle, and a point finds back', () => {
    expect(turned(grey, 0)).toBe(grey)
    const there = beforeTurn({ x: 700, y: 100 }, { width, height }, 30 * degree)
    const back = beforeTurn(there, { width, height }, -30 * degree)
    expect([back.x, back.y].map(Math.round)).toEqual([700, 100])
  })
})
