import { z } from 'zod'
import { Instant } from './common'

/** How this server is, for whoever runs it: numbers alone, of nobody. */
export const ServerState = z
  .object({
    version: z.string(),
    /** Since when this process runs. */
    since: Instant,
    database: z.object({
      isUp: z.boolean(),
      version: z.string().nullable(),
      /** Nodes of the cluster as the one in use sees them; 0 where there is no cluster. */
      nodes: z.int(),
      isReady: z.boolean(),
      lastMigration: z.string().nullable(),
    }),
    queue: z.object({
      /** Connections to the database in use, and requests that wait for one. */
      using: z.int(),
      waiting: z.int(),
      /** Entries of the trail that are not written yet. */
      trail: z.int(),
    }),
    /** Of this process since it started, the slowest first. */
    routes: z.array(
      z.object({
        route: z.string(),
        count: z.int(),
        /** Estimated from the histogram that the metrics show. */
        p95Ms: z.number(),
        /** Answered with 500 or above. */
        failed: z.int(),
      }),
    ),
    counts: z.object({ studios: z.int(), students: z.int(), checks: z.int(), sessions: z.int() }).nullable(),
    backup: z.object({ at: Instant, rows: z.int(), isLocked: z.boolean() }).nullable(),
    drill: z
      .object({
        at: Instant,
        isSound: z.boolean(),
        steps: z.array(z.object({ isSound: z.boolean(), said: z.string() })),
      })
      .nullable(),
  })
  .meta({ id: 'ServerState' })
