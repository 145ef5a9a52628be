import { createHash } from 'node:crypto'
import type { Paper } from '#core/papers/blocks'

/** Papers that are kept to be given again, each by what it is made from and by what stands in it. */
const most = 200
const papers = new Map<string, Promise<Uint8Array>>()

/**
 * A paper by what it is made from, made once while it is asked for again and again; those that were asked for last
 * are kept.
 */
export function keptPaper(madeFrom: string, make: () => Promise<Uint8Array>): Promise<Uint8Array> {
  const kept = papers.get(madeFrom)
  papers.delete(madeFrom)
  const paper = kept ?? make()
  papers.set(madeFrom, paper)
  paper.catch(() => papers.delete(madeFrom))
  const [oldest] = papers.keys()
  if (papers.size > most && oldest !== undefined) papers.delete(oldest)
  return paper
}

/** A paper as PDF, set once for whatever says the same: most changes of the shop's rules change no word of a paper. */
export const keptByContent = (
  paper: Paper,
  print: (paper: Paper) => Promise<Uint8Array>,
): Promise<Uint8Array> =>
  keptPaper(createHash('sha256').update(JSON.stringify(paper)).digest('base64'), () => print(paper))
