import type { WiredJob } from '#core/assessment/wired'
import type { Write } from '#core/units/format'
import { numberedPosts } from '#core/wiring/numbered'
import { isSizeUnknown, ratingWords, sizeWords } from '#core/wiring/words'

/** A label to stick on a cable end, a fuse, a switch or a bar. */
export interface WiringLabel {
  readonly number: string
  /** A cable: its two ends. A fitting: its name. */
  readonly from: string
  readonly to: string
  /** Size of a cable, rating of a fitting; empty if it was not read. */
  readonly size: string
  /** Number of the fuse that protects the cable; empty for a fitting, or where there is none. */
  readonly fuse: string
}

/** The name of a post; its id if it is none of the wiring. */
export const postName = ({ network }: WiredJob, post: string): string =>
  network.posts.find(({ id }) => id === post)?.name ?? post

/** The number of the fuse that protects a run; null where there is none. */
export function fuseNumber({ network, runs }: WiredJob, run: string): string | null {
  const fuse = runs.find(({ id }) => id === run)?.fuse
  return network.posts.find(({ id }) => id === fuse)?.fitting?.number ?? null
}

/** One label for each end of every cable that is there afterwards, then one for each fitting with a number. */
export function wiringLabels(wired: WiredJob, q: Write): readonly WiringLabel[] {
  const { network } = wired
  const cables = network.runs
    .filter(({ areaMm2, state, isStud }) => areaMm2 !== null && state !== 'goes' && !isStud)
    .flatMap((run) => {
      const label = {
        number: run.number,
        from: postName(wired, run.from),
        to: postName(wired, run.to),
        size: isSizeUnknown(run) ? '' : sizeWords(run, q),
        fuse: fuseNumber(wired, run.id) ?? '',
      }
      return [label, label]
    })
  const fittings = numberedPosts(network).map(({ fitting, name }): WiringLabel => ({
    number: fitting.number,
    from: name,
    to: '',
    size: ratingWords(fitting, q),
    fuse: '',
  }))
  return [...cables, ...fittings]
}
