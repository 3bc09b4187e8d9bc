import type { Database } from '../../db/database'
import type { Handlers } from '../../http/call'
import { openApi } from '../../http/openapi'

/** How long a reader may keep the description, s: it changes with the version alone. */
const DESCRIPTION_S = 3600

export function healthRoutes(
  database: Database,
  version: string,
): Pick<Handlers, 'health.read' | 'live.read' | 'openapi.read'> {
  /** The same at every call, so made once. */
  let description: ReturnType<typeof openApi> | undefined
  return {
    async 'health.read'(call) {
      const alive = await database.isAlive()
      if (!alive) call.setStatus(503)
      return { status: alive ? 'ok' : 'unavailable', version, database: alive ? 'ok' : 'away' }
    },
    'live.read': () => Promise.resolve({ status: 'ok' }),
    'openapi.read'(call) {
      call.mayBeKept(DESCRIPTION_S)
      return Promise.resolve((description ??= openApi(version)))
    },
  }
}
