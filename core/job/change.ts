/**
 * One changed property of a job, by its path: a value (`place/coldestC`), a line of the head
 * (`job/customer`), a rule (`rules/windowLowV`), or a whole part that came or went
 * (`chargers/charger-1`). A side that is missing was, or is, not there.
 */
export interface Change {
  readonly path: string
  readonly before?: unknown
  readonly after?: unknown
}
