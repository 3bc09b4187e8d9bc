import { createHash, timingSafeEqual } from 'node:crypto'
import type { RequestHandler } from 'express'
import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client'
import type { Database } from '../db/database'
import { standingOf } from '../db/standing'
import { within } from '../within'
import { routeOf } from './errors'
import { ProblemError } from './problem-error'

/** A scrape is answered by then, whether the database is there or not. */
const ASKED_MS = 1500
/** From a read out of memory to the longest that anybody is let wait, s. */
const BUCKETS_S = [0.005, 0.01, 0.025, 0.05, 0.1, 0.15, 0.3, 0.6, 1.2, 2.5, 5, 10]

/** The library gives a histogram's buckets a label that it does not type. */
interface BucketValue {
  readonly labels: { readonly le?: string | number }
  readonly value: number
}

export interface RouteTiming {
  readonly route: string
  readonly count: number
  readonly p95Ms: number
  readonly failed: number
}

/**
 * The value below which a part of what was counted lies, in the buckets' unit: even within its bucket, and of the last the one
 * before it, as Prometheus' `histogram_quantile` has it. `counts` are of everything up to a bucket's end.
 */
export function quantileOf(
  buckets: readonly { readonly upTo: number; readonly count: number }[],
  part: number,
): number {
  const total = buckets.at(-1)?.count ?? 0
  if (total === 0) return 0
  const rank = part * total
  const at = buckets.findIndex(({ count }) => count >= rank)
  const from = buckets[at - 1] ?? { upTo: 0, count: 0 }
  const { upTo, count } = buckets[at]!
  if (!Number.isFinite(upTo)) return from.upTo
  return from.upTo + (upTo - from.upTo) * ((rank - from.count) / (count - from.count))
}

/** Numbers of this server for whoever runs it. Routes by name and nothing else of a request: no address, no studio, no person. */
export function metricsOf(database: Database, version: string, { withProcess }: { withProcess: boolean }) {
  const registry = new Registry()
  const registers = [registry]
  // Of memory and the event loop, for whoever reads them: they watch it all the time.
  if (withProcess) collectDefaultMetrics({ register: registry, prefix: 'jadefell_' })
  const requests = new Counter({
    name: 'jadefell_requests_total',
    help: 'Requests answered',
    labelNames: ['route', 'status'] as const,
    registers,
  })
  const duration = new Histogram({
    name: 'jadefell_request_duration_seconds',
    help: 'Time from a request to its answer',
    labelNames: ['route'] as const,
    buckets: BUCKETS_S,
    registers,
  })
  const gauge = (name: string, help: string) => new Gauge({ name: `jadefell_${name}`, help, registers })
  const isUp = gauge('database_up', '1 while the database answers')
  const nodes = gauge(
    'cluster_nodes',
    'Nodes of the cluster as the one in use sees them; 0 without a cluster',
  )
  const isReady = gauge('cluster_ready', '1 while the node in use belongs to its cluster')
  new Gauge({ name: 'jadefell_build', help: 'The version that runs', labelNames: ['version'], registers })
    .labels(version)
    .set(1)

  /** Times every request, whoever answers it. */
  const timing: RequestHandler = (_request, response, next) => {
    const end = duration.startTimer()
    response.on('finish', () => {
      const route = routeOf(response)
      end({ route })
      requests.inc({ route, status: response.statusCode })
    })
    next()
  }

  /** Each route with its 95th percentile, ms, and how often it failed, the slowest first. */
  const routes = async (): Promise<RouteTiming[]> => {
    const [timings, answers] = [await duration.get(), await requests.get()]
    const failedOf = (route: string) =>
      answers.values
        .filter(({ labels }) => labels.route === route && Number(labels.status) >= 500)
        .reduce((sum, { value }) => sum + value, 0)
    const named = [...new Set(timings.values.map(({ labels }) => String(labels.route)))]
    return named
      .map((route) => {
        const own = timings.values.filter(({ labels }) => labels.route === route) as BucketValue[]
        const buckets = own
          .filter(({ labels }) => labels.le !== undefined)
          .map(({ labels, value }) => ({
            upTo: Number(String(labels.le).replace('+Inf', 'Infinity')),
            count: value,
          }))
        const count = buckets.at(-1)?.count ?? 0
        return { route, count, p95Ms: 1000 * quantileOf(buckets, 0.95), failed: failedOf(route) }
      })
      .sort((a, b) => b.p95Ms - a.p95Ms)
  }

  const read = async () => {
    const standing = await within(ASKED_MS, standingOf(database.sequelize)).catch(() => undefined)
    isUp.set(standing ? 1 : 0)
    nodes.set(standing?.nodes ?? 0)
    isReady.set(standing?.isReady ? 1 : 0)
    return registry.metrics()
  }

  return { timing, read, routes, contentType: registry.contentType }
}

export type Metrics = ReturnType<typeof metricsOf>

/** Shown to whoever has the token; without it there is nothing here. */
export function metricsRoute({ read, contentType }: Metrics, token: string): RequestHandler {
  const hashOf = (text: string) => createHash('sha256').update(text).digest()
  const wanted = hashOf(`Bearer ${token}`)
  return (request, response, next) => {
    if (!timingSafeEqual(hashOf(request.get('authorization') ?? ''), wanted))
      return next(new ProblemError('not_found'))
    response.locals['route'] = 'metrics'
    read().then((text) => response.type(contentType).send(text), next)
  }
}
