import express, { Router } from 'express'
import { join } from 'node:path'

const YEAR_MS = 365 * 24 * 3600 * 1000

/** The built page: hashed files for ever, `index.html` afresh each time and for every address of a room. */
export function webFiles(root: string): Router {
  const router = Router()
  router.use(
    '/assets',
    express.static(join(root, 'assets'), { immutable: true, maxAge: YEAR_MS, fallthrough: false }),
  )
  router.use(express.static(root, { index: false }))
  router.get('/{*room}', (request, response, next) => {
    if (!request.accepts('html')) return next()
    response.setHeader('cache-control', 'no-cache')
    response.sendFile(join(root, 'index.html'))
  })
  return router
}
