import { ROUTES, type RouteName } from '#contracts'

/** A save that waits in this browser. */
export interface OutboxEntry {
  readonly version: 1
  /** Idempotency key: the same for the same save, however often it is sent. */
  readonly id: string
  /** When it was made, ms since 1970: saves are sent in this order. */
  readonly at: number
  /** Whose it is: nobody else's session sends it. */
  readonly userId: string
  readonly route: RouteName
  readonly input: unknown
  readonly what: string
  readonly draft: string | null
  /** Put into today's words from those of an earlier version. */
  readonly isUpgraded?: boolean
  /** Why the server does not take it. */
  readonly refusal?: string
}

const PREFIX = 'jadefell.outbox.'

/**
 * Each save lies under a name of its own, so that two tabs never write over one another. False where the browser has no room, or keeps
 * nothing: it is still sent, as long as the page is open.
 */
export function writeEntry(entry: OutboxEntry): boolean {
  try {
    localStorage.setItem(PREFIX + entry.id, JSON.stringify(entry))
    return true
  } catch {
    return false
  }
}

export function removeEntry(id: string): void {
  localStorage.removeItem(PREFIX + id)
}

/** Everything that waits, oldest first, and the ids of what cannot be read. */
export function readEntries(): { entries: OutboxEntry[]; unreadable: string[] } {
  const entries: OutboxEntry[] = []
  const unreadable: string[] = []
  for (const name of Object.keys(localStorage)) {
    if (!name.startsWith(PREFIX)) continue
    const entry = parsed(localStorage.getItem(name) ?? '')
    if (entry) entries.push(entry)
    else unreadable.push(name.slice(PREFIX.length))
  }
  return { entries: entries.sort((a, b) => a.at - b.at), unreadable }
}

function parsed(text: string): OutboxEntry | undefined {
  try {
    const entry = JSON.parse(text) as Partial<OutboxEntry>
    const isKnown = entry.version === 1 && entry.route !== undefined && entry.route in ROUTES
    return isKnown && typeof entry.id === 'string' ? (entry as OutboxEntry) : undefined
  } catch {
    return undefined
  }
}
