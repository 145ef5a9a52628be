import type { Verdict } from '#core/system/verdict'

/** Colours of a drawing: names of them on the page, values on paper. */
export interface Palette {
  readonly ink: string
  readonly soft: string
  readonly strong: string
  readonly paper: string
  readonly chosen: string
  readonly verdicts: Readonly<Record<Verdict, string>>
}

export const paperPalette: Palette = {
  ink: '#1C2A30',
  soft: '#5C6468',
  strong: '#163A46',
  paper: '#FFFFFF',
  chosen: '#5A4A99',
  verdicts: {
    suits: '#1F6F5C',
    'suits-once-changed': '#8A5510',
    'measure-first': '#5A4A99',
    'does-not-suit': '#AD3426',
  },
}

export interface Look {
  readonly palette: Palette
  /** Worst verdict by the path of a run or a fitting, if worse than Suits. */
  readonly verdicts: ReadonlyMap<string, Verdict>
  /** The selected element, by its path; null if nothing is selected, or selectable. */
  readonly chosen: string | null
  /** Nodes on which the probes of a meter are put. */
  readonly probes?: { readonly red: string | null; readonly black: string | null }
  /** Its font, if not that of the page. */
  readonly font?: string
  /** Mark for values set by hand: a pencil, if the font has one. */
  readonly byHand?: string
}
