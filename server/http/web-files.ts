import { Router } from 'express'
import expressStaticGzip, { type ExpressStaticGzipOptions } from 'express-static-gzip'
import { join } from 'node:path'

const YEAR_MS = 365 * 24 * 3600 * 1000

/** A file stands packed beside itself, made by the build: nothing is packed anew for every caller. */
const PACKED: ExpressStaticGzipOptions = { enableBrotli: true, orderPreference: ['br'], index: false }

/** The built page: hashed files for ever, `index.html` afresh each time and for every address of a room. */
export function webFiles(root: string): Router {
  const router = Router()
  router.use(
    '/assets',
    expressStaticGzip(join(root, 'assets'), {
      ...PACKED,
      serveStatic: { immutable: true, maxAge: YEAR_MS, fallthrough: false },
    }),
  )
  router.use(expressStaticGzip(root, PACKED))
  router.get('/{*room}', (request, response, next) => {
    if (!request.accepts('html')) return next()
    response.setHeader('cache-control', 'no-cache')
    response.sendFile(join(root, 'index.html'))
  })
  return router
}
