/** Names of signals and protections that do not work. */

/** The running signal of a relay, by its post, or of a DC-DC, by its unit. */
export const runSignal = (id: string): string => `run:${id}`
/** The line by which the battery stops a source. */
export const stopSignal = (source: string): string => `stop:${source}`
