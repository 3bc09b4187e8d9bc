import { v7 as uuid } from 'uuid'
import type { Student } from '#contracts'
import { DEMO_EMAIL } from '../server/demo/seed'
import { asyncRatioOf, times, type Ratio } from './ratio'
import { play, signIn, type BenchServer, type Statement } from './server'

const READS = 40
const SAVES = 20
const AIM = 3

/**
 * A read and a save through the whole server against the same SQL sent straight through the connector: the statements
 * are written down while the server answers once, then played back. Ids in the save are made new each time.
 */
export async function apiAgainstSql({ base, bare, written }: BenchServer): Promise<Ratio[]> {
  const client = await signIn(base, DEMO_EMAIL)
  const student = await client.student('Orla Venn')
  const read = () => client.get(`/students/${student.id}`)
  const readSql = await written(read)
  const known = new Set(JSON.stringify([student, client.session, readSql]).match(UUID))
  const save = () => client.post(`/students/${student.id}/checks`, checkOn(student))
  const saveSql = await written(save)
  try {
    return [
      await asyncRatioOf(
        `API read / its ${readSql.length} statements`,
        () => times(READS, read),
        () => times(READS, () => play(bare, readSql)),
        AIM,
      ),
      await asyncRatioOf(
        `API save / its ${saveSql.length} statements`,
        () => times(SAVES, save),
        () => times(SAVES, () => play(bare, withNewIds(saveSql, known))),
        AIM,
      ),
    ]
  } finally {
    client.close()
  }
}

const UUID = /[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[0-9a-f]{4}-[0-9a-f]{12}/g

/** The same save with new ids for the rows it made, which are the ids that nothing read or wrote before it inserted them. */
export function withNewIds(statements: readonly Statement[], known: ReadonlySet<string>): Statement[] {
  const made = new Map<string, string>()
  const renew = (text: string) =>
    text.replace(UUID, (id) => {
      if (known.has(id)) return id
      const fresh = made.get(id) ?? uuid()
      made.set(id, fresh)
      return fresh
    })
  return statements.map(({ sql, bound }) => ({
    sql: renew(sql),
    bound: bound.map((value) => (typeof value === 'string' ? renew(value) : value)),
  }))
}

export function checkOn(student: Student) {
  return {
    instrumentId: student.instrument?.id,
    takenAt: new Date().toISOString(),
    exercise: { kind: 'shape', string: 'A4', shapeId: 'first' },
    system: 'fifths',
    readings: [7, 13, -6, -20].map((shownCents, i) => ({ finger: i + 1, shownCents })),
  }
}
