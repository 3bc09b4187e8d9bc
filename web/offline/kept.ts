import { API_BASE, ROUTES, type RouteName } from '#contracts/routes'

/** Reads that are no part of a lesson, or not to lie on a device: files, who is signed in where, the state of the server. */
const NOT_KEPT = new Set<RouteName>([
  'health.read',
  'live.read',
  'openapi.read',
  'attachments.read',
  'checks.track',
  'sessions.list',
  'sound.stored',
  'room.read',
  'secondFactor.read',
  'people.list',
  'audit.list',
  'server.read',
])

const KEPT = Object.entries(ROUTES)
  .filter(([name, [method]]) => method === 'GET' && !NOT_KEPT.has(name as RouteName))
  .map(([, [, path]]) => new RegExp(`^${API_BASE}${path.replaceAll('.', '\\.').replace(/:\w+/g, '[^/]+')}$`))

/** Whether what is read at this address may answer in the server's place. */
export function isKeptAddress(path: string): boolean {
  return KEPT.some((pattern) => pattern.test(path))
}

/** Whether this answer says that nobody is signed in here any more: also from afar, in the list of sessions. */
export async function isEndOfSession(answer: Response, url: string): Promise<boolean> {
  if (answer.status === 401) return true
  if (answer.status !== 200 || new URL(url).pathname !== `${API_BASE}${ROUTES['door.read'][1]}`) return false
  const { session } = (await answer.clone().json()) as { session: object | null }
  return session === null
}

/** The address with what is asked of it in the order of the alphabet. */
export function inOrder(address: string): string {
  const url = new URL(address)
  url.searchParams.sort()
  return url.href
}
