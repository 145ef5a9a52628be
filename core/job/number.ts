/** Numbers of jobs that were made without the server begin with this; the workshop numbers them when they arrive. */
const temporary = 'New '

/** Number of the nth job that was made on a device without the server. */
export const temporaryNumber = (n: number): string => `${temporary}${n}`

/** Whether a job still waits for a number of the workshop. */
export const isTemporaryNumber = (number: string): boolean =>
  number.startsWith(temporary) && Number.isInteger(Number(number.slice(temporary.length)))
