/** A request that cannot be served as it is: a status and the words for the person. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly more: Readonly<Record<string, unknown>> = {},
  ) {
    super(message)
  }
}
