/** Id of the cause that nothing is wrong. */
export const soundId = 'none'
/** Id of the cause that something outside the list is wrong, or the meter. */
export const otherId = 'other'
