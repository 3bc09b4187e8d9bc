import { group } from 'd3-array'
import { QueryTypes } from 'sequelize'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Attachment, BodyFit, Check, Pain, Plan, Student, Studio } from '#contracts'
import { eraseStudent } from './features/students/erase'
import { StudioStore } from './db/studio-store'
import { clearExpired } from './housekeeping'
import {
  heardDraft,
  setupRound,
  silence,
  startHarness,
  weekPlan,
  type Client,
  type Harness,
} from './testing/harness'

let harness: Harness
beforeAll(async () => (harness = await startHarness()))
afterAll(() => harness.close())

const DAY_MS = 24 * 3600_000
const query = <Row extends object>(sql: string, replacements: Record<string, unknown> = {}) =>
  harness.database.sequelize.query<Row>(sql, { type: QueryTypes.SELECT, replacements })

/** A student with a row in every table that can hold one of theirs. */
async function known(client: Client, name: string): Promise<Student> {
  const { student, instrument } = await client.player(name)
  const path = `/students/${student.id}`
  const check = await client.make<Check>('POST', `${path}/checks`, heardDraft(instrument.id))
  await client.make('POST', `${path}/hands`, { measuredOn: '2026-11-28', comfortableSpanMm: 63 })
  await client.make('POST', `${path}/mastery`, {
    marks: [{ kind: 'pattern', item: 'fourth/1234/212', state: 'secure' }],
  })
  await client.make('POST', `${path}/setup-rounds`, setupRound())
  await client.make<Pain>('POST', `${path}/pains`, { toldOn: '2026-11-28', place: 'left wrist' })
  await client.make<BodyFit>('POST', `${path}/body-fits`, {
    family: 'violin',
    fittedOn: '2026-11-28',
    handsOff: 5,
  })
  await client.make('POST', `${path}/gate-marks`, { gate: 'vibrato', item: 'steady_bow', state: 'yes' })
  await client.make<Plan>('POST', `${path}/plans`, weekPlan())
  await client.make('POST', `${path}/practice`, {
    entries: [{ exerciseId: 'shake_out', on: '2026-11-28', isDone: true, minutes: 5 }],
  })
  await client.allowSound(student)
  await client.make<Attachment>('POST', `/attachments/check/${check.id}`, silence())
  await client.make<Attachment>('POST', `/attachments/student/${student.id}`, silence())
  const spare = await client.make<Attachment>('POST', `/attachments/student/${student.id}`, silence())
  await client.make('DELETE', `/attachments/${spare.id}`)
  return client.make<Student>('GET', path)
}

/** Of every table: how many of its rows say a text anywhere. */
async function saying(text: string): Promise<Record<string, number>> {
  const columns = await query<{ name: string; column: string }>(
    `SELECT table_name AS name, column_name AS \`column\` FROM information_schema.columns
     WHERE table_schema = DATABASE() AND data_type NOT IN ('mediumblob', 'datetime', 'date', 'double', 'int', 'bigint', 'tinyint')`,
  )
  const tables = group(columns, ({ name }) => name)
  const counted = await Promise.all(
    [...tables].map(async ([name, of]) => {
      const all = of.map(({ column }) => `\`${column}\``).join(', ')
      const [row] = await query<{ n: number }>(
        `SELECT COUNT(*) AS n FROM \`${name}\` WHERE CONCAT_WS(' ', ${all}) LIKE :text`,
        { text: `%${text}%` },
      )
      return [name, Number(row!.n)] as const
    }),
  )
  return Object.fromEntries(counted.filter(([, n]) => n > 0))
}

it('erases a student from every table there is; who saw and changed what stays, by an id that names nobody', async () => {
  const client = await harness.studio('Erasing')
  const [gone, stays] = [await known(client, 'Tansy Farrow'), await known(client, 'Orla Venn')]
  const before = await saying(stays.id)
  // Every table that could name a student does: one that is added later shows up here until it is placed.
  const columns = await query<{ name: string }>(
    `SELECT DISTINCT table_name AS name FROM information_schema.columns
     WHERE table_schema = DATABASE() AND column_name = 'student_id' ORDER BY table_name`,
  )
  const rows = await saying(gone.id)
  const unnamed = columns.map(({ name }) => name).filter((name) => rows[name] === undefined)
  // Written only when somebody is erased, or a consent was withdrawn.
  expect(unnamed).toEqual(['erasure', 'sound_removal'])

  await harness.database.inTransaction((transaction) =>
    eraseStudent(new StudioStore(harness.database, client.studioId, transaction), gone.id, harness.clock),
  )
  expect(Object.keys(await saying(gone.id)).sort()).toEqual(['audit', 'erasure'])
  expect(await saying('Tansy')).toEqual({})
  // Who looked is written a moment after the answer: there may be one line more by now.
  const { audit: lines, ...others } = await saying(stays.id)
  const { audit: linesBefore, ...othersBefore } = before
  expect(others).toEqual(othersBefore)
  expect(lines).toBeGreaterThanOrEqual(linesBefore!)
  const orphans = await query<{ n: number }>(
    `SELECT (SELECT COUNT(*) FROM landing l LEFT JOIN hand_check c ON c.id = l.check_id WHERE c.id IS NULL)
          + (SELECT COUNT(*) FROM attachment_chunk k LEFT JOIN attachment a ON a.id = k.attachment_id WHERE a.id IS NULL)
          + (SELECT COUNT(*) FROM take_track t LEFT JOIN hand_check c ON c.id = t.check_id WHERE c.id IS NULL) AS n`,
  )
  expect(Number(orphans[0]!.n)).toBe(0)
  expect((await client.send('GET', `/students/${gone.id}`)).status).toBe(404)
})

it('takes away by the studio’s rules, on the day and not before, and by nobody else’s', async () => {
  const [client, other] = [await harness.studio('Rules'), await harness.studio('No Rules')]
  const studio = await client.make<Studio>('GET', '/studio')
  await client.make('PATCH', '/studio', {
    version: studio.version,
    settings: { retention: { leftDays: 365, soundDays: 100, trailDays: 730 } },
  })
  const children = [await known(client, 'Left Long Ago'), await known(other, 'Of Another')]
  const kept = await known(client, 'Still Here')
  await client.make('DELETE', `/students/${children[0]!.id}`)
  await other.make('DELETE', `/students/${children[1]!.id}`)
  const sounds = async (of: Client) =>
    harness.database.models.attachment.count({ where: { studioId: of.studioId } })
  const after = (days: number) =>
    clearExpired(harness.database, new Date(harness.clock.getTime() + days * DAY_MS))
  const all = await sounds(client)

  await after(99.9)
  expect(await sounds(client)).toBe(all)
  await after(100.1)
  expect(await sounds(client)).toBe(0)
  expect(await sounds(other)).toBeGreaterThan(0)
  // Out of a backup of before they do not come again either.
  expect(
    await harness.database.models.soundRemoval.count({ where: { studioId: client.studioId } }),
  ).toBeGreaterThanOrEqual(all)

  await after(364.9)
  expect(await saying('Left Long Ago')).not.toEqual({})
  await after(365.1)
  expect(await saying('Left Long Ago')).toEqual({})
  expect(Object.keys(await saying('Of Another'))).toContain('student')
  expect(Object.keys(await saying(kept.name))).toContain('student')
  const rule = await query<{ deed: string; userId: null }>(
    "SELECT deed, user_id AS userId FROM audit WHERE studio_id = :id AND deed = 'student.erased'",
    { id: client.studioId },
  )
  expect(rule).toEqual([{ deed: 'student.erased', userId: null }])
})
