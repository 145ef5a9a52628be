import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client'

const registry = new Registry()
collectDefaultMetrics({ register: registry })

const requests = new Histogram({
  name: 'http_request_seconds',
  help: 'Time until a request was answered, by method, route and status',
  labelNames: ['method', 'route', 'status'] as const,
  buckets: [0.005, 0.02, 0.05, 0.1, 0.3, 1, 3, 10],
  registers: [registry],
})
const waiting = new Gauge({
  name: 'jobs_waiting_for_a_verdict',
  help: 'Jobs that were saved and are not checked yet',
  registers: [registry],
})

/** One request that was answered. */
interface Answered {
  readonly method: string
  /** The route with its parameters by name. */
  readonly route: string
  readonly status: number
  readonly seconds: number
}

export const countRequest = ({ method, route, status, seconds }: Answered): void => {
  requests.observe({ method, route, status }, seconds)
}

/** Everything that is counted, in the text format of Prometheus. */
export async function metricsText(jobsWaiting: number): Promise<string> {
  waiting.set(jobsWaiting)
  return registry.metrics()
}
export const metricsType = registry.contentType
