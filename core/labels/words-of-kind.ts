import type { PartKindId } from '#core/job/fields'

/** Words anywhere on a plate that choose an option of a field. The first that is found counts. */
interface KindWord {
  readonly field: string
  readonly option: string
  readonly words: RegExp
}

// cspell:disable
const lead: readonly KindWord[] = [
  { field: 'chemistry', option: 'lithium', words: /li ?fe ?p[o0]{1,2} ?4|lithium|litio/iu },
  { field: 'chemistry', option: 'gel', words: /\bgel\b/iu },
  { field: 'chemistry', option: 'agm', words: /\bagm\b/iu },
]
const lithium: readonly KindWord[] = [
  {
    field: 'chemistry',
    option: 'lfp',
    words:
      /li ?fe ?p[o0]{1,2} ?4|\blfp\b|iron phosphate|eisenphosphat|fer phosphate|hierro fosfato|ferro fosfato|ijzerfosfaat/iu,
  },
  { field: 'chemistry', option: 'nmc', words: /\bnmc\b|mangan.{0,8}cobalt|cobalt.{0,8}mangan/iu },
  { field: 'ingress', option: 'immersion', words: /\bip ?6[78]\b/iu },
  { field: 'ingress', option: 'splash', words: /\bip ?[56][4-6]\b/iu },
]

export const kindWords: Readonly<Partial<Record<PartKindId, readonly KindWord[]>>> = {
  candidate: lithium,
  alternatives: lithium,
  houseBank: lead,
  startingBatteries: lead,
  links: [{ field: 'kind', option: 'dcdc', words: /[dp]c ?[-/–]? ?dc\b|ladebooster|ladewandler/iu }],
  solar: [
    { field: 'controller', option: 'mppt', words: /\bmppt\b/iu },
    { field: 'controller', option: 'pwm', words: /\bpwm\b/iu },
  ],
}
