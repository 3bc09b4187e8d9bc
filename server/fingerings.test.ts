import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { familyOf, fingerScale, parseKey, placementContext, placesOfFingering, type Lock } from '#core'
import type { KeptFingering } from '#contracts'
import { startHarness, type Client, type Harness } from './testing/harness'

let harness: Harness
let client: Client

beforeAll(async () => {
  harness = await startHarness()
  client = await harness.studio('Tide Studio')
})
afterAll(() => harness.close())

const LINE: KeptFingering['line'] = {
  family: 'violin',
  tuning: ['G3', 'D4', 'A4', 'E5'],
  frameId: 'fourth',
  keyId: 'D:major',
  figure: 'scale',
  octaves: 1,
}

function notesWith(locks: readonly Lock[]): KeptFingering['notes'] {
  const violin = familyOf('violin')
  const key = parseKey(LINE.keyId)
  const context = placementContext(violin, violin.tuning)
  const made = key.ok && fingerScale(context, { key: key.key, figure: 'scale', octaves: 1, locks })
  if (!made || !made.ok) throw new Error('no such scale')
  return placesOfFingering(made.notes) as KeptFingering['notes']
}

const keep = (body: object) => client.send('POST', '/fingerings', { line: LINE, settled: [], ...body })
const list = () => client.make<KeptFingering[]>('GET', '/fingerings?family=violin')

describe('a studio’s own fingering', () => {
  it('holds from when it is kept, the newest before all others, until the usual one holds again', async () => {
    const fourth = notesWith([{ index: 4, finger: 4 }])
    expect((await keep({ notes: fourth, settled: [4] })).status).toBe(200)
    expect(await list()).toMatchObject([
      { line: LINE, notes: fourth, settled: [4], by: 'Teacher of Tide Studio' },
    ])
    const other = notesWith([{ index: 5, finger: 2 }])
    await keep({ notes: other, settled: [5] })
    await keep({ line: { ...LINE, octaves: 2, keyId: 'G:major' }, notes: null })
    expect(await list()).toMatchObject([{ notes: other, settled: [5] }])
    await keep({ notes: null })
    expect(await list()).toEqual([])
  })

  it('is another one on other strings, and of another family is not listed', async () => {
    const notes = notesWith([])
    await keep({ notes })
    const tuned = { ...LINE, tuning: ['A3', 'E4', 'A4', 'E5'] }
    await keep({ line: tuned, notes: null })
    expect(await list()).toHaveLength(1)
    expect(await client.make<KeptFingering[]>('GET', '/fingerings?family=viola')).toEqual([])
  })

  it.each([
    [
      { notes: notesWith([]).map((n, i) => (i === 3 ? { ...n, finger: 5 } : n)) },
      'notes.3',
      'No hand plays G4',
    ],
    [{ notes: notesWith([]).slice(0, 9) }, 'notes', 'Give 15 notes'],
    [{ line: { ...LINE, keyId: 'H:major' }, notes: null }, 'line.keyId', 'Give a key'],
    [{ line: { ...LINE, frameId: 'closed' }, notes: null }, 'line.frameId', 'frames'],
    [{ line: { ...LINE, tuning: ['E5', 'A4', 'D4', 'G3'] }, notes: null }, 'line.tuning', 'the lowest first'],
  ])('refuses what no hand holds or no line has, and says what to give: %#', async (body, path, words) => {
    const reply = await keep(body)
    expect(reply.status).toBe(422)
    expect(reply.problem.fields?.[0]).toMatchObject({
      path,
      message: expect.stringContaining(words) as string,
    })
  })
})
