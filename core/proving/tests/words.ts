/** A name as it goes on in a sentence. */
export const inside = (name: string): string => name.replace(/^The /, 'the ')
