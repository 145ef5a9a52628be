/** Keeps to the newest of several questions. The answer to one that was overtaken meanwhile comes as undefined. */
export function latest(): <T>(answer: Promise<T>) => Promise<T | undefined> {
  let newest = 0
  return async (answer) => {
    const turn = ++newest
    const given = await answer
    return turn === newest ? given : undefined
  }
}
