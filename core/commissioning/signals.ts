/** How signals and protections are called where they do not arrive. */

/** The running signal of a relay, by its post, or of a DC-DC, by its unit. */
export const runSignal = (id: string): string => `run:${id}`
/** The line by which the battery stops a source. */
export const stopSignal = (source: string): string => `stop:${source}`
