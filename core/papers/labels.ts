import type { WiredJob } from '#core/assessment/wired'
import type { Write } from '#core/units/format'
import { ratingWords, sizeWords } from '#core/wiring/words'

/** A label to stick on a cable end, a fuse, a switch or a bar. */
export interface WiringLabel {
  readonly number: string
  /** A cable: where it comes from and goes to. A fitting: what it is. */
  readonly from: string
  readonly to: string
  /** Size of a cable, rating of a fitting; empty if unknown. */
  readonly size: string
  /** Number of the fuse that protects the cable; empty for a fitting, or where there is none. */
  readonly fuse: string
}

/** One label for each end of every cable that is there afterwards, then one for each fitting with a number. */
export function wiringLabels({ network, runs }: WiredJob, q: Write): readonly WiringLabel[] {
  const posts = new Map(network.posts.map((post) => [post.id, post]))
  const nameOf = (id: string): string => posts.get(id)?.name ?? id
  const fuseOf = (run: string): string => {
    const fuse = runs.find(({ id }) => id === run)?.fuse
    return (fuse ? posts.get(fuse)?.fitting?.number : undefined) ?? ''
  }
  const cables = network.runs
    .filter(({ areaMm2, state, isStud }) => areaMm2 !== null && state !== 'goes' && !isStud)
    .flatMap((run) => {
      const label = {
        number: run.number,
        from: nameOf(run.from),
        to: nameOf(run.to),
        size: sizeWords(run, q),
        fuse: fuseOf(run.id),
      }
      return [label, label]
    })
  const fittings = network.posts.flatMap(({ fitting, name, state }): WiringLabel[] =>
    fitting?.number && state !== 'goes'
      ? [
          {
            number: fitting.number,
            from: name,
            to: '',
            size: ratingWords(fitting, q),
            fuse: '',
          },
        ]
      : [],
  )
  return [...cables, ...fittings]
}
