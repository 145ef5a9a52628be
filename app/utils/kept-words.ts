/** Changes that only this device has, in words. */
export const keptHere = (changes: number): string =>
  changes === 1 ? '1 change kept on this device' : `${changes} changes kept on this device`
