/** The four verdicts, best to worst. */
export const verdicts = ['suits', 'suits-once-changed', 'measure-first', 'does-not-suit'] as const
export type Verdict = (typeof verdicts)[number]

export const verdictWords: Readonly<Record<Verdict, string>> = {
  suits: 'Suits',
  'suits-once-changed': 'Suits after changes',
  'measure-first': 'Measure first',
  'does-not-suit': 'Does not suit',
}

const rank = (verdict: Verdict): number => verdicts.indexOf(verdict)

/** The worst of several verdicts; Suits when there are none. */
export const worst = (all: Iterable<Verdict>): Verdict => {
  let result: Verdict = 'suits'
  for (const verdict of all) if (rank(verdict) > rank(result)) result = verdict
  return result
}

export const isWorse = (a: Verdict, b: Verdict): boolean => rank(a) > rank(b)
