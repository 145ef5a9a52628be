/** A job of an older version: plain data. */
export type Group = Readonly<Record<string, unknown>>

/** The way from one version of the format to the next. */
export interface Migration {
  readonly job: (job: Group) => Group
  /** Where a value of the older version stands now. */
  readonly path: (path: string) => string
}
