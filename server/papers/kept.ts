/** Papers that are kept to be given again. */
const most = 100
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
