import { inUnits } from '#core/units/display'
import { judgings, type JudgeNews, type JudgeOrder } from '../utils/judgings'

/** Judges off the page's own thread. Sending the result works out what is only worked out when it is looked at. */
onmessage = ({ data: { id, what, job, rules, units } }: MessageEvent<JudgeOrder>): void => {
  try {
    postMessage({ id, result: inUnits(units, () => judgings[what](job, rules)) } satisfies JudgeNews)
  } catch (cause) {
    postMessage({ id, error: (cause as Error).message } satisfies JudgeNews)
  }
}
