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

/** Numbers of this server for whoever runs it. Routes by name and nothing else of a request: no address, no studio, no person. */
export function metricsOf(database: Database, version: string) {
  const registry = new Registry()
  const registers = [registry]
  collectDefaultMetrics({ register: registry, prefix: 'jadefell_' })
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

  const read = async () => {
    const standing = await within(ASKED_MS, standingOf(database.sequelize)).catch(() => undefined)
    isUp.set(standing ? 1 : 0)
    nodes.set(standing?.nodes ?? 0)
    isReady.set(standing?.isReady ? 1 : 0)
    return registry.metrics()
  }

  return { timing, read, contentType: registry.contentType }
}

/** Shown to whoever has the token; without it there is nothing here. */
export function metricsRoute(
  { read, contentType }: ReturnType<typeof metricsOf>,
  token: string,
): RequestHandler {
  const hashOf = (text: string) => createHash('sha256').update(text).digest()
  const wanted = hashOf(`Bearer ${token}`)
  return (request, response, next) => {
    if (!timingSafeEqual(hashOf(request.get('authorization') ?? ''), wanted))
      return next(new ProblemError('not_found'))
    response.locals['route'] = 'metrics'
    read().then((text) => response.type(contentType).send(text), next)
  }
}
