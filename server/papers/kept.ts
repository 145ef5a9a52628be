import { createHash } from 'node:crypto'
import type { Paper } from '#core/papers/blocks'

/** A cache by inputs: it holds the most recently requested ones. */
export class Kept<T> {
  private readonly all = new Map<string, Promise<T>>()
  constructor(private readonly most: number) {}

  /** Made once while it is asked for again and again. */
  of(madeFrom: string, make: () => Promise<T>): Promise<T> {
    const kept = this.all.get(madeFrom)
    this.all.delete(madeFrom)
    const made = kept ?? make()
    this.all.set(madeFrom, made)
    made.catch(() => this.all.delete(madeFrom))
    const [oldest] = this.all.keys()
    if (this.all.size > this.most && oldest !== undefined) this.all.delete(oldest)
    return made
  }
}

/** Papers, each by its inputs and by its content. */
const papers = new Kept<Uint8Array>(200)

/** A paper by its inputs. */
export const keptPaper = (madeFrom: string, make: () => Promise<Uint8Array>): Promise<Uint8Array> =>
  papers.of(madeFrom, make)

/**
 * A paper as PDF, set once for whatever says the same: most changes of the shop's rules change no word of a paper.
 */
export const keptByContent = (
  paper: Paper,
  print: (paper: Paper) => Promise<Uint8Array>,
): Promise<Uint8Array> =>
  papers.of(createHash('sha256').update(JSON.stringify(paper)).digest('base64'), () => print(paper))
