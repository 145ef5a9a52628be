import { carryOut, type RunId, type RunInputs, type RunResult } from '#core/simulation/runs'
import type { Plant } from '#core/simulation/plant'
import { readEpw, weatherOf } from '#core/weather/epw'

export interface RunOrder {
  readonly run: RunId
  readonly plants: readonly Plant[]
  readonly inputs: RunInputs
  /** Text of a weather file, for runs over a year. */
  readonly epw: string | null
}
export type RunNews =
  | { readonly kind: 'progress'; readonly share: number }
  | { readonly kind: 'done'; readonly results: readonly RunResult[]; readonly notes: readonly string[] }
  | { readonly kind: 'refused'; readonly error: string }

const say = (news: RunNews): void => { postMessage(news) }

/** Carries out an order off the page's own thread. It is stopped by ending the worker. */
onmessage = ({ data }: MessageEvent<RunOrder>): void => {
  const { run, plants, inputs, epw } = data
  const read = epw === null ? null : readEpw(epw)
  if (read && !read.ok) return say({ kind: 'refused', error: `line ${read.line}: ${read.error}` })
  const weather = read ? weatherOf(read.file, inputs.tilt) : null
  try {
    const results = plants.map((plant, i) => {
      const going = carryOut(run, plant, inputs, weather)
      for (;;) {
        const { done, value } = going.next()
        if (done) return value
        say({ kind: 'progress', share: (i + value) / plants.length })
      }
    })
    say({ kind: 'done', results, notes: read ? read.file.notes : [] })
  } catch (cause) {
    say({ kind: 'refused', error: `The run ended by itself: ${(cause as Error).message}` })
  }
}
