export interface Reply<T = Record<string, unknown>> {
  readonly status: number
  readonly body: T
}

/** Asks a server of a test: JSON out, JSON back, whatever the status. Text and bytes go out as they are. */
export async function ask<T = Record<string, unknown>>(
  server: { readonly url: string },
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<Reply<T>> {
  const response = await fetch(server.url + path, {
    method,
    // A test that computes for seconds would not see that the server has closed a kept connection meanwhile.
    headers: {
      connection: 'close',
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      ...headers,
    },
    ...(body === undefined
      ? {}
      : {
          body:
            typeof body === 'string' || body instanceof Uint8Array
              ? (body as BodyInit)
              : JSON.stringify(body),
        }),
  })
  return { status: response.status, body: (await response.json()) as T }
}
