import type { JobPage, JobRow } from '../server/repositories/job-list'

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

/** The jobs of a list after the check of all earlier saves. */
export async function listedJobs(at: { readonly url: string }, query = ''): Promise<JobRow[]> {
  for (let tries = 0; tries < 200; tries++) {
    const { body } = await ask<{ waiting: number }>(at, 'GET', '/api/shop/judging')
    if (body.waiting === 0) break
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
  return (await ask<JobPage>(at, 'GET', `/api/jobs${query}`)).body.jobs.slice()
}
