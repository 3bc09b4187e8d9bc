import type { Request } from 'express'

/** A request that changes nothing: HEAD is a GET whose answer has no body (RFC 9110). */
export function isReading({ method }: Request): boolean {
  return method === 'GET' || method === 'HEAD'
}
