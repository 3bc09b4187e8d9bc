import { setTimeout as pause } from 'node:timers/promises'
import { QueryTypes, type Sequelize } from 'sequelize'
import { v4 as uuid } from 'uuid'
import { isUnavailable } from './errors'

/** How long somebody waits for what only one may have, and what is said meanwhile. */
export interface Waiting {
  readonly lockWaitS: number
  readonly tellEveryS: number
  readonly report: (line: string) => void
  /** What is said where it is never let go. */
  readonly fault?: string
}

/**
 * Asks until it is held, saying now and then that it waits; `ask` takes at most so many seconds. Throws where it is never let go.
 */
export async function untilHeld(
  { lockWaitS: waitS, tellEveryS, report, fault }: Waiting,
  ask: (seconds: number) => Promise<boolean>,
): Promise<void> {
  let waited = Math.min(tellEveryS, waitS)
  let isHeld = await ask(waited)
  for (; !isHeld && waited < waitS; waited += tellEveryS) {
    report('another server is preparing the database: waiting for it')
    isHeld = await ask(tellEveryS)
  }
  if (!isHeld)
    throw new Error(
      fault ??
        `Another server has been preparing this database for ${waitS} seconds. Wait until it is done, or end it, and start again.`,
    )
}

/** Nobody who lives is silent for so long, s: the clocks of two nodes differ by less. */
const LEASE_S = 30
const RENEWED_EVERY_MS = 5000
const ASKED_EVERY_MS = 250

/** What only one may do at a time, each with a row of its own. */
const LEASES = { migrate: 1, restore: 2 } as const

/**
 * Runs `work` while nobody else does the same on any node of a cluster: a row says who, and until when unless it is said again. Of two that write
 * it at once over different nodes, the cluster lets one pass and refuses the other.
 */
export async function withLease<T>(
  sequelize: Sequelize,
  what: keyof typeof LEASES,
  waiting: Waiting,
  work: () => Promise<T>,
): Promise<T> {
  const [owner, id] = [uuid(), LEASES[what]]
  await sequelize.query(
    'CREATE TABLE IF NOT EXISTS lease (id TINYINT PRIMARY KEY, owner CHAR(36) NOT NULL, until_at DATETIME(3) NOT NULL)',
    { type: QueryTypes.RAW },
  )
  const until = `UTC_TIMESTAMP(3) + INTERVAL ${LEASE_S} SECOND`
  const claim = async () => {
    try {
      // The time last: what stands before it compares with the one that was.
      await sequelize.query(
        `INSERT INTO lease (id, owner, until_at) VALUES (${id}, :owner, ${until})
         ON DUPLICATE KEY UPDATE owner = IF(until_at < UTC_TIMESTAMP(3), VALUES(owner), owner),
           until_at = IF(owner = VALUES(owner), VALUES(until_at), until_at)`,
        { type: QueryTypes.INSERT, replacements: { owner } },
      )
    } catch (error) {
      if (!isUnavailable(error)) throw error
    }
    const [row] = await sequelize.query<{ owner: string }>(`SELECT owner FROM lease WHERE id = ${id}`, {
      type: QueryTypes.SELECT,
    })
    return row?.owner === owner
  }
  await untilHeld(waiting, async (seconds) => {
    for (let asked = 0; ; asked += ASKED_EVERY_MS) {
      if (await claim()) return true
      if (asked >= seconds * 1000) return false
      await pause(ASKED_EVERY_MS)
    }
  })
  const renewing = setInterval(() => void claim().catch(() => false), RENEWED_EVERY_MS)
  try {
    return await work()
  } finally {
    clearInterval(renewing)
    await sequelize.query('DELETE FROM lease WHERE owner = :owner', {
      type: QueryTypes.BULKDELETE,
      replacements: { owner },
    })
  }
}
