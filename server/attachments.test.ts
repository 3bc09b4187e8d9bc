import { createHash, randomBytes } from 'node:crypto'
import { request as httpRequest } from 'node:http'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { v7 as uuid } from 'uuid'
import { writeWav } from '#core'
import {
  API_BASE,
  CSRF_HEADER,
  IDEMPOTENCY_HEADER,
  type Attachment,
  type Check,
  type Problem,
  type StoredSound,
  type Student,
  type Studio,
} from '#contracts'
import { ATTACHMENT_LIMIT_BYTES } from '#contracts/attachments'
import { clearExpired } from './housekeeping'
import { StudioStore } from './db/studio-store'
import { checkDraft, silence, startHarness, type Client, type Harness } from './testing/harness'

let harness: Harness
let client: Client
let path: string
let child: Student
let store: StudioStore
beforeAll(async () => (harness = await startHarness()))
afterAll(() => harness.close())
beforeEach(async () => {
  client = await harness.studio('Sound Studio')
  store = new StudioStore(harness.database, client.studioId)
  const { student, instrument } = await client.player('Iris Salt')
  child = await client.allowSound(student)
  const check = await client.make<Check>('POST', `/students/${student.id}/checks`, checkDraft(instrument.id))
  path = `/attachments/check/${check.id}`
})

const sha256 = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex')
const counts = async () => ({
  files: (await store.all(store.models.attachment)).length,
  chunks: (await store.all(store.models.attachmentChunk)).length,
})
async function bytesOf(id: string) {
  const response = await fetch(`${harness.url}${API_BASE}/attachments/${id}`, {
    headers: { cookie: client.cookie },
  })
  return { headers: response.headers, bytes: Buffer.from(await response.arrayBuffer()) }
}

describe('sound of a student', () => {
  const withdraw = () =>
    client.make<Student>('PATCH', `/students/${child.id}`, { version: child.version, soundConsent: null })

  it('is kept only where the studio keeps sound and the student’s file says that it may', async () => {
    const { student, instrument } = await client.player('Nobody Asked')
    const check = await client.make<Check>(
      'POST',
      `/students/${student.id}/checks`,
      checkDraft(instrument.id),
    )
    for (const where of [`check/${check.id}`, `student/${student.id}`]) {
      const { status, problem } = await client.send('POST', `/attachments/${where}`, silence())
      expect([where, status, problem.code]).toEqual([where, 403, 'sound_not_allowed'])
      expect(problem.detail).toContain('consent')
    }
    // A string that is plucked to show how it rings is no child’s voice.
    await client.make('POST', `/attachments/instrument/${instrument.id}`, silence())
    const studio = await client.make<Studio>('GET', '/studio')
    const settings = { ...studio.settings, keepsSound: false }
    await client.make('PATCH', '/studio', { version: studio.version, settings })
    expect((await client.send('POST', path, silence())).problem.detail).toContain('keeps no sound')
  })

  it('is gone for good when the consent is withdrawn, of that student alone', async () => {
    const { student, instrument } = await client.player('Another Child')
    await client.allowSound(student)
    await client.make('POST', `/attachments/student/${student.id}`, silence())
    await client.make('POST', `/attachments/instrument/${instrument.id}`, silence())
    await client.make('POST', path, silence())
    await client.make('POST', `/attachments/student/${child.id}`, silence())
    expect(await counts()).toEqual({ files: 4, chunks: 4 })
    expect((await withdraw()).soundConsent).toBeNull()
    expect(await counts()).toEqual({ files: 2, chunks: 2 })
    expect((await client.send('POST', path, silence())).status).toBe(403)
  })

  it('is asked about again when the last byte has come: consent and switch may have been taken back meanwhile', async () => {
    const switchOff = async () => {
      const studio = await client.make<Studio>('GET', '/studio')
      await client.make('PATCH', '/studio', {
        version: studio.version,
        settings: { ...studio.settings, keepsSound: false },
      })
    }
    const sentWhile = async (meanwhile: () => Promise<unknown>) => {
      const response = await fetch(`${harness.url}${API_BASE}${path}`, {
        method: 'POST',
        headers: { ...headers(), 'content-type': 'audio/wav' },
        body: (async function* () {
          yield silence(400_000)
          await meanwhile()
          yield silence()
        })() as unknown as BodyInit,
        duplex: 'half',
      } as RequestInit)
      return [response.status, ((await response.json()) as Problem).detail]
    }
    expect(await sentWhile(switchOff)).toEqual([403, expect.stringContaining('keeps no sound')])
    await client.allowSound(child)
    child = await client.make<Student>('GET', `/students/${child.id}`)
    expect((await sentWhile(withdraw))[0]).toBeOneOf([403, 410])
    expect(await counts()).toEqual({ files: 0, chunks: 0 })
  })

  it('sent again after it was taken away is refused in words of its own, also where there is consent again', async () => {
    const key = uuid()
    const send = () => client.send('POST', path, silence(), { key })
    expect((await send()).status).toBe(200)
    child = await withdraw()
    expect((await send()).problem).toMatchObject({
      code: 'sound_not_allowed',
      detail: expect.stringContaining('withdrawn') as string,
    })
    await client.allowSound(child)
    expect((await send()).problem).toMatchObject({ status: 410, code: 'removed_since' })
    expect(await counts()).toEqual({ files: 0, chunks: 0 })
  })

  it('is told and removed for the whole studio, strings that were plucked left alone', async () => {
    const { student, instrument } = await client.player('Second Child')
    await client.allowSound(student)
    for (const where of [path, `/attachments/student/${child.id}`, `/attachments/student/${student.id}`])
      await client.make('POST', where, silence(1000))
    await client.make('POST', `/attachments/instrument/${instrument.id}`, silence())
    expect(await client.make<StoredSound>('GET', '/studio/sound')).toEqual({
      recordings: 3,
      students: 2,
      byteCount: 3 * silence(1000).length,
    })
    await client.make('DELETE', '/studio/sound')
    expect(await client.make<StoredSound>('GET', '/studio/sound')).toMatchObject({
      recordings: 0,
      students: 0,
    })
    expect(await counts()).toEqual({ files: 1, chunks: 1 })
  })

  it('says who gave the consent, and on a day that has been', async () => {
    expect(child.soundConsent).toEqual({ on: '2026-11-28', by: 'Mrs Salt, mother' })
    const given = (soundConsent: object) =>
      client.send('PATCH', `/students/${child.id}`, { version: child.version, soundConsent })
    expect((await given({ on: '2026-11-28', by: ' ' })).problem.fields).toMatchObject([
      { path: 'soundConsent.by' },
    ])
    expect((await given({ on: '2031-01-01', by: 'Mrs Salt' })).problem.fields).toMatchObject([
      { path: 'soundConsent.on' },
    ])
  })
})

describe('a file beside a record', () => {
  it('comes back byte for byte, and says what it is', async () => {
    const wav = Buffer.concat([silence(), randomBytes(700_000)])
    const made = await client.make<Attachment>('POST', path, wav)
    expect(made).toMatchObject({
      record: 'check',
      mediaType: 'audio/wav',
      byteCount: wav.length,
      sha256: sha256(wav),
      by: 'Teacher of Sound Studio',
    })
    expect(await counts()).toEqual({ files: 1, chunks: 3 })
    const { headers, bytes } = await bytesOf(made.id)
    expect(bytes.equals(wav)).toBe(true)
    expect(headers.get('content-type')).toBe('audio/wav')
    expect(headers.get('content-disposition')).toBe('attachment')
    expect(headers.get('x-content-type-options')).toBe('nosniff')
    expect(await client.make<Attachment[]>('GET', path)).toEqual([made])
  })

  it('comes in the parts that a player winds to', async () => {
    const wav = Buffer.concat([silence(), randomBytes(700_000)])
    const { id, sha256: sum } = await client.make<Attachment>('POST', path, wav)
    const part = async (range: string, more: Record<string, string> = {}) => {
      const response = await fetch(`${harness.url}${API_BASE}/attachments/${id}`, {
        headers: { cookie: client.cookie, range, ...more },
      })
      const bytes = Buffer.from(await response.arrayBuffer())
      return { status: response.status, range: response.headers.get('content-range'), bytes }
    }
    const last = wav.length - 1
    for (const [asked, from, to] of [
      ['bytes=0-11', 0, 11],
      ['bytes=262100-600000', 262_100, 600_000],
      ['bytes=262144-', 262_144, last],
      ['bytes=-5', last - 4, last],
      [`bytes=600000-${last + 900}`, 600_000, last],
    ] as const) {
      const got = await part(asked)
      expect([asked, got.status, got.range]).toEqual([asked, 206, `bytes ${from}-${to}/${wav.length}`])
      expect(got.bytes.equals(wav.subarray(from, to + 1)), asked).toBe(true)
    }
    expect(await part(`bytes=${wav.length}-`)).toMatchObject({ status: 416, range: `bytes */${wav.length}` })
    for (const [asked, more] of [
      ['items=0-5', {}],
      ['bytes=0-5,9-12', {}],
      ['bytes=0-5', { 'if-range': '"another"' }],
    ] as const)
      expect((await part(asked, more)).bytes.length, asked).toBe(wav.length)
    expect((await part('bytes=0-5', { 'if-range': `"${sum}"` })).bytes.length).toBe(6)
  })

  it('beside an instrument is a string that is plucked: ten seconds, whatever the file says of itself', async () => {
    const { instrument } = await client.player('Plucked')
    const beside = (wav: Buffer) => client.send('POST', `/attachments/instrument/${instrument.id}`, wav)
    expect((await beside(silence(10 * 8000))).status).toBe(200)
    const long = await beside(silence(11 * 8000))
    expect([long.status, long.problem.code]).toEqual([403, 'sound_not_allowed'])
    expect(long.problem.detail).toContain('10 seconds')
    const boast = silence(11 * 48_000)
    boast.writeUInt32LE(700_000, 24)
    expect((await beside(boast)).status).toBe(403)
  })

  it('removed is gone for good, bytes and all', async () => {
    const { id } = await client.make<Attachment>('POST', path, silence())
    await client.make('DELETE', `/attachments/${id}`)
    expect(await counts()).toEqual({ files: 0, chunks: 0 })
    expect((await client.send('GET', `/attachments/${id}`)).status).toBe(404)
    expect(await client.make('GET', path)).toEqual([])
  })

  it('sent twice with one key is kept once; the key with another file is refused', async () => {
    const key = uuid()
    const send = (bytes: Buffer) => client.send('POST', path, bytes, { key })
    const replies = [...(await Promise.all([send(silence()), send(silence())])), await send(silence())]
    expect(replies.map((r) => r.status)).toEqual([200, 200, 200])
    expect(new Set(replies.map((r) => (r.body as Attachment).id)).size).toBe(1)
    expect((await send(silence(99))).problem.code).toBe('idempotency_key_reused')
    expect((await client.send('POST', path, silence(), { key: 'short' })).problem.code).toBe(
      'idempotency_key_missing',
    )
    expect(await counts()).toEqual({ files: 1, chunks: 1 })
  })

  it('is refused by its type, by its first bytes and when it is empty, and leaves nothing', async () => {
    const as = (type: string, bytes: Buffer) =>
      client.send('POST', path, bytes, { headers: { 'content-type': type } })
    const page = Buffer.from('<!doctype html><script>alert(1)</script>')
    for (const [type, bytes, status] of [
      ['text/html', page, 415],
      ['audio/wav', page, 415],
      ['audio/wav', Buffer.from(writeWav([0, Infinity, 0], 8000, 'float32')), 415],
      ['audio/wav', silence().subarray(0, 40), 415],
      ['image/png', silence(), 415],
      ['audio/wav', Buffer.alloc(0), 400],
    ] as const) {
      const reply = await as(type, bytes)
      expect([type, reply.status]).toEqual([type, status])
      expect(reply.problem.detail?.length).toBeGreaterThan(10)
    }
    const png = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 0])
    expect((await as('image/png; name=x', png)).status).toBe(200)
    expect(await counts()).toEqual({ files: 1, chunks: 1 })
  })

  it('larger than what is kept is refused by its declared length, before a byte is read', async () => {
    const reply = await raw({ 'content-length': String(ATTACHMENT_LIMIT_BYTES + 1) }, [silence()])
    expect(reply).toBe(413)
    expect(await counts()).toEqual({ files: 0, chunks: 0 })
  })

  it('that breaks off on its way leaves nothing, and is not written down as the server’s fault', async () => {
    await raw({ 'content-length': '900000' }, [silence(300_000)]).catch(() => {})
    await expect.poll(counts).toEqual({ files: 0, chunks: 0 })
    expect(harness.log.some((line) => line.includes('"level":50'))).toBe(false)
  })

  it('beside what is not there, or of a studio that is not one’s own, is not found', async () => {
    const { id } = await client.make<Attachment>('POST', path, silence())
    const other = await harness.studio('Other Sound')
    for (const [method, where] of [
      ['GET', `/attachments/${id}`],
      ['DELETE', `/attachments/${id}`],
      ['GET', path],
      ['POST', path],
      ['POST', `/attachments/check/${uuid()}`],
      ['POST', `/attachments/session/${uuid()}`],
    ] as const) {
      const reply = await other.send(method, where, method === 'POST' ? silence() : undefined)
      expect([where, reply.status]).toEqual([where, 404])
    }
    expect((await bytesOf(id)).bytes.equals(silence())).toBe(true)
  })

  it('whose bytes never came whole is swept away after a day', async () => {
    const [row] = await store.all(store.models.attachment)
    expect(row).toBeUndefined()
    await client.make('POST', path, silence())
    const [whole] = await store.all(store.models.attachment)
    await store.insert(store.models.attachment, [{ ...whole!, id: uuid(), isWhole: false }])
    await clearExpired(harness.database, harness.clock)
    expect((await counts()).files).toBe(2)
    await clearExpired(harness.database, new Date(harness.clock.getTime() + 25 * 3600_000))
    expect((await counts()).files).toBe(1)
  })
})

const headers = () => ({
  cookie: client.cookie,
  [CSRF_HEADER]: client.session!.csrfToken,
  [IDEMPOTENCY_HEADER]: uuid(),
})

/** A request that is written by hand: what it says of itself need not be true. Gives the status, or fails as the wire does. */
function raw(of: Record<string, string>, pieces: readonly Buffer[]): Promise<number> {
  return new Promise((resolve, reject) => {
    const sent = httpRequest(
      `${harness.url}${API_BASE}${path}`,
      {
        method: 'POST',
        headers: { ...headers(), 'content-type': 'audio/wav', ...of },
      },
      (response) => resolve(response.statusCode ?? 0),
    )
    sent.on('error', reject)
    for (const piece of pieces) sent.write(piece)
    // The rest is never sent.
    if (pieces[0]!.length > 100_000) sent.write('', () => sent.destroy())
  })
}
