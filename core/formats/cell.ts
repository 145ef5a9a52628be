// Words in a cell of a table. A spreadsheet takes a cell that begins with one of these for a formula, so such
// words go out behind an apostrophe, and come in without it.
const begins = /^['=+\-@\t\r]/

/** Words as they may stand in a cell. */
export const wordsToCell = (words: string): string => (begins.test(words) ? `'${words}` : words)

/** The words of a cell. */
export const wordsOfCell = (cell: string): string =>
  cell.startsWith("'") && begins.test(cell.slice(1)) ? cell.slice(1) : cell

/** Characters that are invisible, or change the direction of text. */
const unseen = /[\p{Cc}\p{Cs}\u061C\u200E\u200F\u202A-\u202E\u2066-\u2069]/u

/** Whether words are plain text: a reader sees all of it. */
export const isPlainText = (words: string): boolean => !unseen.test(words)
