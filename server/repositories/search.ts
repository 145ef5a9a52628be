import type { Sql } from 'postgres'

/** All words, as pieces of the search text: one condition a word, so that the trigram index serves. */
export const allWords = (sql: Sql, words: string) =>
  words
    .toLowerCase()
    .split(/\s+/)
    .filter(Boolean)
    .reduce((where, word) => sql`${where} and search like ${`%${word.replace(/[\\%_]/g, '\\$&')}%`}`, sql``)
