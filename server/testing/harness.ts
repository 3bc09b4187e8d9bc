import type { AddressInfo } from 'node:net'
import { createServer, type Server } from 'node:http'
import { pino } from 'pino'
import { v7 as uuid } from 'uuid'
import { encodeTrack, TRACK_STEP_S, writeWav } from '#core'
import {
  API_BASE,
  CSRF_HEADER,
  IDEMPOTENCY_HEADER,
  type Instrument,
  type Page,
  type Problem,
  type Session,
  type Student,
  type Studio,
} from '#contracts'
import { createApp, type AppDeps } from '../app'
import { openDatabase, type Database } from '../db/database'
import { addStudio } from '../features/session/accounts'

const PASSWORD = 'ferry-steps-at-noon'

/** A running server on the tests' database, and a clock that tests may set. */
export interface Harness {
  readonly database: Database
  readonly app: ReturnType<typeof createApp>
  readonly url: string
  readonly log: string[]
  clock: Date
  /** A new studio with a teacher who is signed in. */
  studio(name: string): Promise<Client>
  /** Stops the server, and leaves the database to whoever shares it. */
  end(): Promise<void>
  close(): Promise<void>
}

export async function startHarness(deps: Partial<AppDeps> = {}): Promise<Harness> {
  const database = deps.database ?? openDatabase(process.env['DATABASE_URL'] ?? '')
  const log: string[] = []
  const harness = { clock: new Date('2026-11-28T09:00:00.000Z') }
  const app = createApp({
    database,
    logger: pino({ level: 'debug' }, { write: (line: string) => void log.push(line) }),
    now: () => harness.clock,
    version: '0.0.0-test',
    sessionSecret: 'a secret of the tests, long enough',
    cookieSecure: false,
    trustProxy: 0,
    checkAnswers: true,
    ...deps,
  })
  const server = await listen(app)
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
  return Object.assign(harness, {
    database,
    app,
    url,
    log,
    async studio(name: string) {
      const email = `${uuid()}@harbour.example`
      await database.inTransaction((transaction) =>
        addStudio(database, transaction, {
          studioName: name,
          teacherName: `Teacher of ${name}`,
          email,
          password: PASSWORD,
          now: harness.clock,
        }),
      )
      const client = new Client(url, email)
      await client.signIn()
      return client
    },
    async end() {
      server.closeAllConnections()
      await new Promise((resolve) => server.close(resolve))
    },
    async close() {
      await this.end()
      await database.close()
    },
  })
}

export interface Reply {
  readonly status: number
  readonly headers: Headers
  readonly text: string
  readonly body: unknown
  readonly problem: Problem
}

export interface Sending {
  readonly key?: string
  readonly headers?: Record<string, string>
}

/** One browser: keeps its cookie and its CSRF token. */
export class Client {
  session: Session | undefined
  cookie = ''

  constructor(
    /** Where it asks; another server knows it by the same cookie. */
    public url: string,
    readonly email: string,
    readonly password = PASSWORD,
  ) {}

  get studioId(): string {
    return this.session?.studio.id ?? ''
  }

  async signIn(): Promise<Reply> {
    const reply = await this.send('POST', '/session', { email: this.email, password: this.password })
    this.cookie = reply.headers.getSetCookie()[0]?.split(';')[0] ?? ''
    this.session = reply.body as Session
    return reply
  }

  async send(method: string, path: string, body?: unknown, sending: Sending = {}): Promise<Reply> {
    const response = await fetch(`${this.url}${API_BASE}${path}`, {
      method,
      headers: {
        ...(body === undefined
          ? {}
          : { 'content-type': body instanceof Buffer ? 'audio/wav' : 'application/json' }),
        ...(this.cookie ? { cookie: this.cookie } : {}),
        ...(this.session ? { [CSRF_HEADER]: this.session.csrfToken } : {}),
        [IDEMPOTENCY_HEADER]: sending.key ?? uuid(),
        ...sending.headers,
      },
      ...(body === undefined ? {} : { body: bytesOf(body) }),
    })
    const text = await response.text()
    const isJson = (response.headers.get('content-type') ?? '').includes('json')
    const parsed = isJson ? (JSON.parse(text) as unknown) : null
    return {
      status: response.status,
      headers: response.headers,
      text,
      body: parsed,
      problem: parsed as Problem,
    }
  }

  /** Like {@link send}, but anything but success fails the test with what the server said. */
  async make<T>(method: string, path: string, body?: unknown): Promise<T> {
    const reply = await this.send(method, path, body)
    if (reply.status >= 300) throw new Error(`${method} ${path}: ${reply.status} ${reply.text}`)
    return reply.body as T
  }

  /** The roster as a query asks for it: `q=venn&sort=lesson`. */
  roster(query = ''): Promise<Page<Student>> {
    return this.make('GET', `/students?${query}`)
  }

  cupboard(query = ''): Promise<Page<Instrument>> {
    return this.make('GET', `/instruments?${query}`)
  }

  /** A student with a measured instrument, ready to be checked. */
  async player(name: string): Promise<{ student: Student; instrument: Instrument }> {
    const instrument = await this.make<Instrument>('POST', '/instruments', {
      label: `the violin of ${name}`,
      family: 'violin',
      sizeId: '1/2',
    })
    await this.make('POST', `/instruments/${instrument.id}/measurements`, {
      length: '284.5',
      measuredOn: '2026-11-28',
    })
    const student = await this.make<Student>('POST', '/students', { name, family: 'violin' })
    await this.make('POST', `/students/${student.id}/loans`, {
      instrumentId: instrument.id,
      on: '2026-11-28',
    })
    return { student, instrument }
  }

  /** The studio keeps sound, and somebody has allowed that of this student. */
  async allowSound({ id, version }: Pick<Student, 'id' | 'version'>): Promise<Student> {
    const studio = await this.make<Studio>('GET', '/studio')
    await this.make('PATCH', '/studio', {
      version: studio.version,
      settings: { ...studio.settings, keepsSound: true },
    })
    return this.make<Student>('PATCH', `/students/${id}`, {
      version,
      soundConsent: { on: '2026-11-28', by: 'Mrs Salt, mother' },
    })
  }
}

function bytesOf(body: unknown): string | Uint8Array<ArrayBuffer> {
  if (body instanceof Buffer) return new Uint8Array(body)
  return typeof body === 'string' ? body : JSON.stringify(body)
}

/** A recording of silence at 8 kHz, of 44 bytes and `samples` of two. */
export function silence(samples = 8): Buffer {
  return Buffer.from(writeWav(new Float32Array(samples), 8000))
}

/** A check as a teacher types it: 1 to 4 on the A string, the fourth finger flat. */
export function checkDraft(instrumentId: string, shownCents: readonly number[] = [7, 13, -6, -20]) {
  return {
    instrumentId,
    takenAt: '2026-11-28T09:41:00.000Z',
    exercise: { kind: 'shape', string: 'A4', shapeId: 'first' },
    system: 'fifths',
    readings: shownCents.map((cents, i) => ({ finger: i + 1, shownCents: cents })),
  }
}

/** A note as an ear told it. */
export function heardNote(finger: number, landingCents: number, atMs: number) {
  return {
    finger,
    landingCents,
    landingSigmaCents: 0.4,
    settledCents: landingCents / 2,
    settledSigmaCents: 0.2,
    atMs,
    lastsMs: 700,
    confidence: 0.98,
  }
}

/** A check of a take that was heard: 1 to 4 on the A string, the fourth finger flat, and the track of its pitch. */
export function heardDraft(instrumentId: string) {
  const track = encodeTrack({
    stepS: TRACK_STEP_S,
    cents: Float32Array.from([200, 203, NaN]),
    levelDb: new Float32Array(3).fill(-20),
  })
  return {
    ...checkDraft(instrumentId, []),
    heard: {
      source: 'microphone',
      notes: [heardNote(1, 2, 400), heardNote(2, -1, 1200), heardNote(3, 0, 2000), heardNote(4, -24, 2800)],
      track: Buffer.from(track).toString('base64'),
    },
  }
}

/** A setup round of a violin that stopped at the gap. */
export function setupRound(answers: Readonly<Record<string, string>> = { pain: 'yes', gap: 'no' }) {
  return {
    takenAt: '2026-11-28T09:41:00.000Z',
    family: 'violin',
    answers: Object.entries(answers).map(([itemId, answer]) => ({ itemId, answer })),
  }
}

/** A week of one exercise, planned where no plan was. */
export function weekPlan(more: object = {}) {
  const reason = { code: 'setup', itemId: 'tension', answer: 'no', on: '2026-11-28' }
  return {
    startsOn: '2026-11-28',
    family: 'violin',
    instrumentId: null,
    minutesADay: 15,
    weekdays: [6, 0, 1],
    cards: ['2026-11-28', '2026-11-29', '2026-11-30'].map((on) => ({
      exerciseId: 'shake_out',
      on,
      minutes: 5,
      reason,
      isFixed: false,
    })),
    after: null,
    ...more,
  }
}

function listen(app: ReturnType<typeof createApp>): Promise<Server> {
  const server = createServer(app)
  return new Promise((resolve) => server.listen(0, '127.0.0.1', () => resolve(server)))
}
