import type { Sql } from 'postgres'

/**
 * All words, as pieces of the search text: one condition a word, so that the trigram index serves.
 * @param text that is searched; the column `search` unless it is another
 */
export const allWords = (sql: Sql, words: string, text = sql`search`) =>
  words
    .toLowerCase()
    .split(/\s+/)
    .filter(Boolean)
    .reduce((where, word) => sql`${where} and ${text} like ${`%${word.replace(/[\\%_]/g, '\\$&')}%`}`, sql``)
