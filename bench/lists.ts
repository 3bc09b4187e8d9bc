import { fork } from 'node:child_process'
import { once } from 'node:events'
import { fileURLToPath } from 'node:url'
import { DEMO_EMAIL, DEMO_PASSWORD } from '../server/demo/seed'
import { addLargeStudio, LARGE_EMAIL } from '../server/demo/large'
import { asyncRatioOf, times, type Ratio } from './ratio'
import { play, signIn, type BenchServer } from './server'

/** With seven thousand instruments. */
const STUDENTS = 5600
const READS = 5
const SMALL_CALLS = 20
const AIM = 2
const READER = fileURLToPath(new URL('reader.mjs', import.meta.url))

/**
 * Lists of a studio of 5,600: a page of each against the same statements sent straight through the connector; and what the
 * calls of a small studio take while the large one is read without a pause, against what they take alone.
 */
export async function listsAgainstSql({ base, bare, database, written }: BenchServer): Promise<Ratio[]> {
  await addLargeStudio(database, STUDENTS, DEMO_PASSWORD)
  const large = await signIn(base, LARGE_EMAIL)
  const small = await signIn(base, DEMO_EMAIL)
  const ratios: Ratio[] = []
  for (const path of [
    '/students',
    '/students?sort=checked&direction=down',
    '/students?q=venn',
    '/instruments',
    '/instruments?sort=length',
  ]) {
    const read = () => large.get(path)
    const sql = await written(read)
    ratios.push(
      await asyncRatioOf(
        `list ${path} of 5,600 / its ${sql.length} statements`,
        () => times(READS, read),
        () => times(READS, () => play(bare, sql)),
        AIM,
      ),
    )
  }
  const student = await small.student('Orla Venn')
  const call = () => times(SMALL_CALLS, () => small.get(`/students/${student.id}`))
  for (const path of [
    '/students',
    '/students?limit=200',
    '/lessons?from=1',
    '/instruments',
    '/instruments?dueOn=2026-11-28',
  ])
    ratios.push(
      await asyncRatioOf(
        `a small studio’s call beside ${path} of 5,600 / alone`,
        () => beside(base + path, large.cookie, call),
        call,
        AIM,
      ),
    )
  large.close()
  small.close()
  return ratios
}

/** How long the work takes while another process reads an address over and over, ms. */
async function beside(url: string, cookie: string, work: () => Promise<unknown>): Promise<number> {
  const reader = fork(READER, [url, cookie], { execArgv: [] })
  await once(reader, 'message')
  const from = performance.now()
  await work()
  const took = performance.now() - from
  reader.kill()
  await once(reader, 'exit')
  return took
}
