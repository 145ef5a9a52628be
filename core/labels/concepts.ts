import { distance } from 'fastest-levenshtein'

/**
 * Meanings of words on plates in English, German, French, Spanish, Italian and Dutch. Each entry is the beginning
 * of a word, without accents. A word with `*` before it may also be the end of a longer one.
 */
// cspell:disable
const stems = {
  charge: ['charge', 'charging', 'chg', 'lade', 'ladung', 'laden', 'carga', 'carica', 'laad', 'recharge'],
  discharge: ['discharg', '*entlad', 'decharge', 'descarga', 'scarica', 'ontlaad', 'dischg'],
  most: ['max', 'maxim', 'largest', 'massim', 'hochst', 'limit'],
  recommended: [
    'recommend',
    'rec.',
    'empf',
    'recomend',
    'conseill',
    'consigliat',
    'aanbevol',
    'standard',
    'preconis',
  ],
  peak: ['peak', 'pulse', 'surge', 'spitze', 'impuls', 'crete', 'pointe', 'pico', 'picco', 'piek', 'burst'],
  float: ['float', 'erhalt', 'maintien', 'flotac', 'mantenim', 'druppel', 'onderhoud', 'entretien'],
  absorption: ['absor', 'assorb', 'boost', 'konstantspannung', 'bulk'],
  equalise: ['equal', 'ausgleich', 'egalis', 'ecual', 'equaliz'],
  cutOff: [
    'cut-off',
    'cutoff',
    'cut',
    'coupure',
    'corte',
    'fine',
    'entladeschluss',
    'ontlaadeind',
    'lvd',
    'undervoltage',
  ],
  temperature: ['temp', '*temperatur', '*temperatuur'],
  storage: ['storage', 'lager', 'stockage', 'almacen', 'stoccag', 'opslag'],
  ambient: [
    'ambient',
    'operat',
    'umgebung',
    'betrieb',
    'omgeving',
    'funktion',
    'fonction',
    'esercizio',
    'funcionam',
  ],
  input: ['input', 'eingang', 'netz', 'entree', 'entrada', 'ingresso', 'ingang', 'in', 'mains', 'primary'],
  output: ['output', 'ausgang', 'sortie', 'salida', 'uscita', 'uitgang', 'out', 'secondary'],
  noLoad: [
    'no-load',
    'idle',
    'standby',
    'leerlauf',
    'vide',
    'vacio',
    'vuoto',
    'nullast',
    'open',
    'abierto',
    'aperto',
    'ouvert',
    'voc',
    'openklem',
    'uoc',
    'self',
  ],
  short: ['short', 'isc', 'kurzschluss', 'court', 'corto', 'cortocirc', 'kortsluit'],
  mpp: ['vmp', 'imp', 'mpp', 'vmpp', 'impp', 'umpp', 'pmax', 'pmpp', 'pm'],
  system: ['system', 'systeem', 'sistem', 'systeme', '*systemspannung', '*systeemspanning'],
  pv: ['pv', 'fv', 'solar', 'photovolt', 'fotovolt', 'zonne'],
  power: ['power', '*leistung', 'puissance', 'potenc', 'potenza', '*vermogen'],
  current: ['current', '*strom', 'courant', 'corriente', 'corrente', '*stroom'],
  voltage: ['voltage', '*spannung', 'tension', 'voltaje', 'tensione', '*spanning'],
  nominal: ['nominal', 'nomin', 'rated', 'nenn'],
  efficiency: ['efficien', 'wirkungsgrad', 'rendement', 'rendim', 'eficien'],
  weight: ['weight', 'gewicht', 'poids', 'masse', 'peso', 'mass'],
  cycles: ['cycle', 'zykl', 'ciclo', 'cicli', 'cycli', 'cyclus'],
  capacity: ['capac', 'kapaz', '*kapazitat'],
  cranking: [
    'cca',
    'crank',
    'kalteprufstrom',
    'kaltstart',
    'demarrage',
    'arranque',
    'spunto',
    'koudstart',
    'startstrom',
  ],
  fuse: ['fuse', 'sicherung', 'fusibl', 'fusibil', 'zekering', '*sicherung', 'breaker'],
  closes: ['cut-in', 'closes', 'einschalt', 'enclench', 'connect', 'engage'],
  opens: ['cut-out', 'opens', 'ausschalt', 'declench', 'disconnect', 'disengage'],
  serial: [
    'serial',
    's/n',
    'sn',
    'sin',
    's1n',
    'seriennr',
    'serien-nr',
    'seriennummer',
    'serie',
    'matricola',
    'serienummer',
    'serienr',
    'ser.',
  ],
  model: ['model', 'modell', 'modele', 'modelo', 'modello', 'type', 'typ', 'tipo', 'mod.'],
} as const
// cspell:enable
export type Concept = keyof typeof stems

/** Stems shorter than this have to be met letter by letter, and as whole words. */
const shortStem = 5
/** Letters that may be wrong in a stem this long. */
const slipsAllowed = (length: number): number => (length >= 10 ? 2 : length >= 6 ? 1 : 0)

/** A word in small letters without accents and without marks around it. */
export const plainWord = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFD')
    .replace(/[̀-ͯ]/gu, '')
    .replace(/ß/gu, 'ss')
    .replace(/^[^a-z0-9]+|[^a-z0-9.]+$/gu, '')

/** How well a word fits a stem: 1 letter by letter, less with slips, 0 not at all. */
function fits(word: string, stem: string): number {
  const isEnd = stem.startsWith('*')
  const wanted = isEnd ? stem.slice(1) : stem
  if (wanted.length < shortStem) {
    const bare = word.replace(/\.$/u, '')
    return bare === wanted || word === wanted || (wanted.length >= 4 && word.startsWith(wanted) && !isEnd)
      ? 1
      : 0
  }
  if (isEnd ? word.includes(wanted) : word.startsWith(wanted)) return 1
  const slips = slipsAllowed(wanted.length)
  // “carica” is no slip of “scarica”.
  if (slips === 0 || (!isEnd && word[0] !== wanted[0]) || word.length < wanted.length - slips) return 0
  const part = isEnd ? word.slice(-wanted.length) : word.slice(0, wanted.length)
  return distance(part, wanted) <= slips ? 0.8 : 0
}

const table = Object.entries(stems) as [Concept, readonly string[]][]

/** Words that begin alike and mean something else. */
// cspell:disable
const excludedMeanings: Readonly<Partial<Record<Concept, RegExp>>> = {
  charge:
    /^(?:charger|ladegerat|lader|cargador|chargeur|caricator|caricabatter|ladebooster|ladewandler|laderegler|ladeschluss?$)/u,
  input: /^(?:in.+)$/u,
  output: /^(?:out(?!put).+)$/u,
  mpp: /^(?:mppt|imp[^p].*|pm.{3,})$/u,
  float: /^(?:floated)$/u,
  current: /^(?:drehstrom.*)$/u,
}
const reallyInput = /^(?:input|eingang|netz|entree|entrada|ingresso|ingang|in$|mains|primary)/u
// cspell:enable

/** French and Italian words that lose their apostrophe: “dentrée”. */
const elided = /^[dl](?=[aeiou])/u

/** Words that were looked up before: plates say the same words again and again. */
const known = new Map<string, readonly Concept[]>()
const mostKnown = 2000

/** The meaning of a word: none, one, or several (“Ladestrom”). */
export function conceptsOf(text: string): readonly Concept[] {
  const plain = plainWord(text)
  if (plain === '') return []
  const before = known.get(plain)
  if (before) return before
  const found = lookUp(/^[dl]entree/u.test(plain) ? plain.replace(elided, '') : plain)
  if (known.size >= mostKnown) known.clear()
  known.set(plain, found)
  return found
}

const lookUp = (word: string): Concept[] =>
  table.flatMap(([concept, own]) => {
    if (concept === 'input') return reallyInput.test(word) || fits(word, 'eingang') > 0 ? [concept] : []
    if (excludedMeanings[concept]?.test(word)) return []
    return own.some((stem) => fits(word, stem) > 0) ? [concept] : []
  })
