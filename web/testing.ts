import { createPinia, disposePinia, getActivePinia, setActivePinia } from 'pinia'
import { vi } from 'vitest'
import { judge, noteName, snapshotOf, type Finger, type Note } from '#core'
import { StudioSettings } from '#contracts/settings'
import type { Check, HandMeasurement, Instrument, KeptVerdict, RingFind, Session, Student } from '#contracts'
import { landed, shaped, strung } from '../core/testing'
import { useSession } from './stores/session'
import { useStudio } from './stores/studio'

/** One request as the page sent it. */
export interface Sent {
  readonly method: string
  readonly path: string
  readonly headers: Record<string, string>
  readonly body: unknown
}

/** An answer to give: a status with a body, or undefined for a server that is not reached. */
export type Reply = { readonly status: number; readonly body?: unknown } | undefined

/** A refusal, or with 503 a database that is away, as the server words it. */
export function problem(status: number, code: string, detail?: string) {
  return { status, body: { status, code, title: 'No', ...(detail === undefined ? {} : { detail }) } }
}

/** Stands in for the server: answers from `replies` in turn, the last one for ever, or as one sees fit; keeps what was sent. */
export function fakeServer(...replies: readonly (Reply | ((request: Sent) => Reply))[]): Sent[] {
  const sent: Sent[] = []
  vi.stubGlobal('fetch', (path: string, init: RequestInit) => {
    const next = replies[Math.min(sent.length, replies.length - 1)]
    const request: Sent = {
      method: init.method ?? 'GET',
      path,
      headers: init.headers as Record<string, string>,
      body: typeof init.body === 'string' ? (JSON.parse(init.body) as unknown) : undefined,
    }
    sent.push(request)
    const reply = typeof next === 'function' ? next(request) : next
    if (!reply) return Promise.reject(new TypeError('fetch failed'))
    const text = reply.body === undefined ? null : JSON.stringify(reply.body)
    return Promise.resolve(new Response(text, { status: reply.status }))
  })
  return sent
}

/** Waits until what is expected is so. The limit is for what never will be: a loaded machine gets its time. */
export function until(expected: () => void): Promise<void> {
  return vi.waitFor(expected, { timeout: 20_000 })
}

let closePage = () => {}
/** How to close the page that is open now, before its stores go. */
export function onClose(close: () => void): void {
  closePage = close
}

/** A fresh set of stores: what a reload leaves is only what the browser keeps. */
export function freshStores(): void {
  // Two pages of one browser hear what the other one writes: the page before is closed.
  closePage()
  const before = getActivePinia()
  if (before) disposePinia(before)
  setActivePinia(createPinia())
}

/** A teacher signed in, without asking the server. */
export function signedIn(userId = 'hester', system = 'fifths', settings: object = {}): void {
  const studio = { version: 1, name: 'Harbour Strings', system, settings: StudioSettings.parse(settings) }
  useSession().session = { user: { id: userId }, studio } as Session
}

interface Known {
  readonly students?: readonly Student[]
  readonly instruments?: readonly Instrument[]
}

/** A studio of which these have been read. */
export function known({ students = [], instruments = [] }: Known): void {
  const studio = useStudio()
  for (const instrument of instruments) studio.takeInstrument(instrument)
  for (const student of students) studio.takeStudent(student)
}

/** The lists of a studio as its server answers them, each on one page; what else is read is empty. */
export function lists({ students = [], instruments = [] }: Known): (request: Sent) => Reply {
  return ({ method, path }) => {
    if (method !== 'GET') return undefined
    const { searchParams } = new URL(path, 'http://studio.example')
    const words = (searchParams.get('q') ?? '').toLowerCase().split(' ')
    const page = (all: readonly (Student | Instrument)[]) => {
      const is = (name: string, value: unknown) => (searchParams.get(name) ?? value) === value
      const rows = all.filter(
        (row) =>
          words.every((word) => JSON.stringify(row).toLowerCase().includes(word)) &&
          is('family', row.family) &&
          (!('sizeId' in row) ||
            (is('sizeId', row.sizeId) && is('holder', row.holder === null ? 'none' : 'some'))),
      )
      return { status: 200, body: { total: rows.length, rows } }
    }
    const [, room, id] = /^\/api\/v1\/([\w-]+)(?:\/([^?]+))?/.exec(path) ?? []
    const found = [...students, ...instruments].find((row) => row.id === id)
    if (found) return { status: 200, body: found }
    if (id !== undefined) return { status: 200, body: [] }
    if (room === 'students') return page(students)
    if (room === 'instruments') return page(instruments)
    if (room === 'instrument-labels') return { status: 200, body: instruments.map((i) => i.label) }
    if (room !== 'lessons') return { status: 200, body: [] }
    const weekday = students[0]?.lesson?.weekday ?? null
    const then = students.filter((s) => s.lesson !== null && s.lesson.weekday === weekday)
    const offset = Number(searchParams.get('offset') ?? 0)
    const part = then.slice(offset, offset + Number(searchParams.get('limit') ?? 200))
    return { status: 200, body: { weekday, total: then.length, students: part } }
  }
}

export const AN_INSTRUMENT: Instrument = {
  id: '01900000-0000-7000-8000-000000000007',
  version: 1,
  label: 'no. 7',
  family: 'violin',
  sizeId: '1/2',
  tuning: ['G3', 'D4', 'A4', 'E5'],
  measurement: {
    id: '01900000-0000-7000-8000-000000000070',
    instrumentId: '01900000-0000-7000-8000-000000000007',
    lengthMm: 284.5,
    stringLengthsMm: null,
    method: 'bridge',
    typed: '284.5',
    measuredOn: '2026-10-03',
    by: 'Hester Lowe',
    recordedAt: '2026-10-03T09:00:00.000Z',
  },
  ringFinds: [],
  pressing: null,
  warmHands: false,
  tapeSet: null,
  tapes: [],
  bridgeChangedOn: null,
  bridgeChangedAt: null,
  triedWithoutOn: null,
  holder: null,
  removedAt: null,
}

export const A_STUDENT: Student = {
  id: '01900000-0000-7000-8000-000000000001',
  version: 3,
  name: 'Orla Venn',
  birthYear: 2017,
  family: 'violin',
  toleranceCents: 15,
  tapeSchoolId: null,
  system: null,
  lesson: { weekday: 6, time: '09:40' },
  soundConsent: null,
  note: '',
  removedAt: null,
  instrument: AN_INSTRUMENT,
  lastCheck: null,
  workingOn: null,
  level: null,
  schools: {},
  setup: null,
  pains: [],
  hand: null,
}

export const A_HAND: HandMeasurement = {
  id: '01900000-0000-7000-8000-000000000091',
  measuredOn: '2026-11-07',
  comfortableSpanMm: 62,
  reachedSpanMm: 68,
  fingerLengthsMm: null,
  fingertipWidthMm: 11,
  thumb: 'straight',
  by: 'Hester Lowe',
}

/** E on the D string, a ninth up by the ring. */
export const A_FIND: RingFind = {
  id: '01900000-0000-7000-8000-000000000099',
  instrumentId: AN_INSTRUMENT.id,
  string: 'D4',
  note: 'E4',
  system: 'fifths',
  cents: 203.91,
  placeMm: 32.4,
  isTrusted: false,
  foundOn: '2026-10-03',
  by: 'Hester Lowe',
}

type CheckFacts = Partial<Check> & { readonly lengthMm?: number }

/** A check as it was kept of the student’s violin, of fingers that landed so many cents off on A. */
export function aCheck(
  id: string,
  takenAt: string,
  heard: readonly (readonly [Finger, number])[],
  { lengthMm = 284.5, ...more }: CheckFacts = {},
): Check {
  const take = { stringing: strung('violin', lengthMm), exercise: shaped('violin') }
  const landings = landed(take, heard)
  const { verdict, likely } = judge({ ...take, landings, toleranceCents: 15 })
  const written = <N extends { readonly note: Note }>(n: N) => ({ ...n, note: noteName(n.note) })
  return {
    id,
    studentId: A_STUDENT.id,
    instrumentId: AN_INSTRUMENT.id,
    takenAt,
    exercise: { kind: 'shape', string: 'A4', shapeId: 'first', notes: take.exercise.notes.map(written) },
    stringing: snapshotOf(take.stringing) as Check['stringing'],
    landings: landings.map(written),
    verdict: verdict as KeptVerdict,
    likely,
    decision: null,
    rejudged: null,
    tapesMm: [],
    tapesCovered: false,
    hasTrack: false,
    toleranceCents: 15,
    unreadable: null,
    note: '',
    by: 'Hester Lowe',
    removedAt: null,
    ...more,
  }
}
