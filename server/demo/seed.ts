import { randomNormal } from 'd3-random'
import {
  arrangedItems,
  exerciseOf,
  familyOf,
  fifths,
  note,
  parseLength,
  placementContext,
  placeOfNote,
  playExercise,
  seededSource,
  shownByMeter,
  stringingOf,
  stringingOfInstrument,
  stringNamed,
  DEFAULT_SYSTEM_ID,
  NO_BODY_FIT,
  type Exercise,
  type MasteryState,
  type PlayerFaults,
  type RandomSource,
  type SetupItemId,
  type Stringing,
} from '#core'
import type { Check, Level } from '#contracts'
import type { Database } from '../db/database'
import { StudioStore } from '../db/studio-store'
import { exerciseRow } from '../features/checks/exercise'
import { checkService } from '../features/checks/service'
import { handService } from '../features/hands/service'
import { instrumentService } from '../features/instruments/service'
import { setupService } from '../features/setup/service'
import { masteryService } from '../features/mastery/service'
import { addStudio } from '../features/session/accounts'
import { tapeService } from '../features/tapes/service'
import { studentService } from '../features/students/service'
import type { Call } from '../http/call'
import { DEMO_EXERCISES } from './exercises'
import { heardTake } from './heard'
import { DEMO_HANDS } from './hands'
import { planTerm } from './plans'
import { DEMO_SETUPS } from './setups'
import { dayOf, seedOf, type CallAt, type WeeksAgo } from './when'
import { DEMO_INSTRUMENTS, DEMO_STUDENTS, type DemoInstrument, type DemoStudent } from './roster'

export const DEMO_EMAIL = 'teacher@port-ellery.example'
export const DEMO_PASSWORD = 'lantern-round'
const SEED = 0.4207
const WEEK_MS = 7 * 24 * 3600_000
const SATURDAY = 6
/** So long ago the term began. */
const TERM_WEEKS = 13

/**
 * Fills an empty database with an invented Saturday programme: every hand is a simulated player with known faults, and
 * everything is saved the way a teacher saves it. Returns false where there is a studio already.
 */
export async function seedDemo(database: Database, now: Date): Promise<boolean> {
  if ((await database.models.studio.count()) > 0) return false
  await database.inTransaction(async (transaction) => {
    const session = await addStudio(database, transaction, {
      studioName: 'Port Ellery Saturday Strings',
      teacherName: 'Hester Lowe',
      email: DEMO_EMAIL,
      password: DEMO_PASSWORD,
      now,
    })
    const store = new StudioStore(database, session.studio.id, transaction)
    const { version, settings } = session.studio
    await store.changeStudio(version, { settings: { ...settings, exercises: [...DEMO_EXERCISES] } })
    const saturday = lastSaturday(now)
    const weeksAgo = (weeks: number) => new Date(saturday.getTime() - weeks * WEEK_MS)
    const callAt = (at: Date) =>
      ({ store, now: at, signedIn: { session, sessionId: '', isFrozen: false } }) satisfies Partial<Call>

    const instrumentIds = new Map<string, string>()
    for (const instrument of DEMO_INSTRUMENTS)
      instrumentIds.set(instrument.label, await addInstrument(instrument, callAt, weeksAgo))
    const source = seededSource(SEED)
    for (const student of DEMO_STUDENTS) {
      const id = await addStudent(student, instrumentIds, source, callAt, weeksAgo)
      await planTerm(student, id, instrumentIds.get(student.instrument ?? '') ?? null, callAt, weeksAgo)
    }
  })
  return true
}

async function addInstrument(demo: DemoInstrument, callAt: CallAt, weeksAgo: WeeksAgo): Promise<string> {
  const { label, family, sizeId, length, stringLengths, pressing, school } = demo
  const start = Math.max(TERM_WEEKS, demo.hereWeeksAgo ?? 0, (demo.tapesLaidWeeksAgo ?? 0) + 1)
  const service = instrumentService(callAt(weeksAgo(start)))
  const { id, version } = await service.create({ label, family, sizeId })
  if (demo.warmHands || pressing)
    await service.update(id, { version, warmHands: demo.warmHands ?? false, ...(pressing && { pressing }) })
  if (length === undefined) return id
  const strings = stringLengths && [...stringLengths]
  // A term later the length is measured again, as it should be.
  for (const weeks of start > 20 ? [start, 10] : [start])
    await instrumentService(callAt(weeksAgo(weeks))).measure(id, {
      length: strings ? '' : length,
      method: 'bridge',
      ...(strings && { strings }),
      measuredOn: dayOf(weeksAgo(weeks)),
      keepAnyway: false,
    })
  if (school !== undefined) await layTapes(id, demo, callAt, weeksAgo)
  return id
}

async function layTapes(id: string, demo: DemoInstrument, callAt: CallAt, weeksAgo: WeeksAgo): Promise<void> {
  const laidOn = weeksAgo(demo.tapesLaidWeeksAgo ?? 6)
  const tapes = tapeService(callAt(laidOn))
  const instrument = await tapes.lay(id, {
    schoolId: demo.school ?? '',
    system: DEFAULT_SYSTEM_ID,
    tapeWidthMm: 3,
    laidOn: dayOf(laidOn),
    reason: '',
  })
  const stringing = stringingOfInstrument(instrument, DEFAULT_SYSTEM_ID)
  for (const { string, note: stopped, byMm } of demo.finds ?? []) {
    const stringIndex = stringNamed(stringing.tuning, string)!
    const placeMm = Number((placeOfNote(stringing, stringIndex, note(stopped)) + byMm).toFixed(1))
    await tapes.find(id, { string, note: stopped, system: 'fifths', placeMm, foundOn: dayOf(laidOn) })
  }
  for (const { weeksAgo: weeks, kind, markId = null, byMm, reason = '' } of demo.events ?? []) {
    const tape = instrument.tapes.find((t) => t.markId === markId)
    const placeMm = tape && byMm !== undefined ? Number((tape.placeMm + byMm).toFixed(1)) : null
    const on = weeksAgo(weeks)
    await tapeService(callAt(on)).log(id, {
      kind,
      markId,
      placeMm,
      on: dayOf(on),
      reason,
      keepAnyway: false,
    })
  }
}

function lengthOf({ label, length = '' }: DemoInstrument): number {
  const parsed = parseLength(length)
  if (!parsed.ok) throw new Error(`the demo instrument ${label} has no length`)
  return parsed.lengthMm
}

async function addStudent(
  demo: DemoStudent,
  instrumentIds: ReadonlyMap<string, string>,
  source: RandomSource,
  callAt: CallAt,
  weeksAgo: WeeksAgo,
): Promise<string> {
  const since = weeksAgo(Math.max(TERM_WEEKS, ...(demo.before ?? []).map((weeks) => weeks + 1)))
  const students = studentService(callAt(since))
  const { id } = await students.create({
    name: demo.name,
    birthYear: weeksAgo(0).getUTCFullYear() - demo.age,
    family: demo.family,
    toleranceCents: demo.toleranceCents,
    level: LEVEL_WITHIN[demo.toleranceCents] ?? null,
    schools: DEMO_SETUPS[demo.name]?.schools ?? {},
    tapeSchoolId: null,
    system: null,
    soundConsent: null,
    lesson: { weekday: SATURDAY, time: demo.time },
    note: demo.note,
    instrument: null,
  })
  await measureHand(demo, id, source, callAt, weeksAgo)
  await lookAtSetup(demo, id, callAt, weeksAgo)
  const instrumentId = instrumentIds.get(demo.instrument ?? '')
  if (instrumentId === undefined) return id
  await students.lend(id, instrumentId, dayOf(since))
  await playBefore(demo, id, instrumentId, callAt, weeksAgo)
  for (const [index, weeks] of demo.checks.entries()) {
    const progress = demo.checks.length > 1 ? index / (demo.checks.length - 1) : 0
    const string = demo.strings[index % demo.strings.length] ?? ''
    const isLast = index === demo.checks.length - 1
    const faults = fade(demo.faults, 1 - (1 - demo.left) * progress)
    const stringing = stringingOfDemo(demo)
    const exercise = exerciseOfDemo(demo, stringing, string, isLast)
    // Drawn for every check: what is drawn after it stays as it is, whichever check is heard.
    const shown = read(stringing, exerciseOfDemo(demo, stringing, string, false), faults, source)
    const played = {
      exercise,
      readings: isLast ? [] : shown,
      heard: isLast ? heardTake(seedOf(demo.name), stringing, exercise, faults) : null,
    }
    const takenAt = lessonTime(weeksAgo(weeks), demo.time)
    await check(callAt(takenAt), id, {
      instrumentId,
      stringing,
      played,
      lessonsAgo: demo.checks.length - index,
    })
  }
  return id
}

/** How much worse the hand was a year ago than when the term began, and how much less steady. */
const WORSE_A_YEAR_AGO = 1.6

/** What was checked before this term, with chance of its own: whoever has no such past plays as ever. */
async function playBefore(
  demo: DemoStudent,
  studentId: string,
  instrumentId: string,
  callAt: CallAt,
  weeksAgo: WeeksAgo,
): Promise<void> {
  const source = seededSource(seedOf(demo.name) + 2)
  for (const [index, weeks] of (demo.before ?? []).entries()) {
    const worse = 1 + (WORSE_A_YEAR_AGO * (weeks - TERM_WEEKS)) / WEEKS_PER_YEAR
    const faults = fade({ ...demo.faults, scatterCents: demo.faults.scatterCents * worse }, worse)
    const stringing = stringingOfDemo(demo)
    const exercise = exerciseOfDemo(demo, stringing, demo.strings[index % demo.strings.length] ?? '', false)
    const played = { exercise, readings: read(stringing, exercise, faults, source), heard: null }
    const takenAt = lessonTime(weeksAgo(weeks), demo.time)
    const lessonsAgo = (demo.before?.length ?? 0) - index
    await check(callAt(takenAt), studentId, { instrumentId, stringing, played, lessonsAgo })
  }
}

/** Keeps a check as a page sends it, and what the teacher makes of it. */
async function check(
  call: ReturnType<CallAt>,
  studentId: string,
  of: {
    readonly instrumentId: string
    readonly stringing: Stringing
    readonly played: {
      readonly exercise: Exercise
      readonly readings: ReturnType<typeof read>
      readonly heard: ReturnType<typeof heardTake> | null
    }
    readonly lessonsAgo: number
  },
): Promise<void> {
  const { exercise, readings, heard } = of.played
  const service = checkService(call)
  const kept = await service.create(studentId, {
    instrumentId: of.instrumentId,
    takenAt: call.now.toISOString(),
    exercise: draftExercise(exercise, of.stringing),
    system: DEFAULT_SYSTEM_ID,
    readings,
    heard,
    tapesCovered: false,
    withEarlier: true,
    note: '',
  })
  await decide(service, kept, of.lessonsAgo)
}

/** What is worked on after such a finding. */
const WORKS: Readonly<Record<string, string>> = {
  whole_hand: 'The place of the hand: open and 1, stopping between notes',
  frame: 'Fourth finger against the open string',
  finger: 'One finger of a few notes, dropped slowly',
  creep: 'Back to the first tape after every line',
  scatter: 'Slow, guided drops',
}

/** A teacher accepts most verdicts and sets one thing to work on; now and then she has seen it otherwise. */
async function decide(
  service: ReturnType<typeof checkService>,
  { id, verdict }: Check,
  lessonsAgo: number,
): Promise<void> {
  if (verdict.outcome !== 'explained') return
  const workOn = WORKS[verdict.findings[0]?.code ?? ''] ?? null
  const isOverruled = lessonsAgo % 5 === 0
  await service.decide(id, {
    says: isOverruled ? 'overruled' : 'accepted',
    reason: isOverruled ? 'seen_otherwise' : null,
    sentence: isOverruled ? 'A cold hand after the long way in the rain: look again next week.' : null,
    workOn: isOverruled ? null : workOn,
    isMended: false,
  })
}

const LEVEL_WITHIN: Readonly<Record<number, Level>> = { 20: 'beginner', 15: 'growing', 10: 'trained' }
const WEEKS_PER_YEAR = 52.18
/** How far two measurements of one hand differ, mm. */
const MEASURING_SPREAD_MM = 0.5

/** The hand as it was measured over the years, to half a millimetre as a ruler gives it, and what it has learned. */
async function measureHand(
  demo: DemoStudent,
  studentId: string,
  source: RandomSource,
  callAt: CallAt,
  weeksAgo: WeeksAgo,
): Promise<void> {
  const hand = DEMO_HANDS[demo.name]
  if (!hand) return
  const noise = randomNormal.source(source)(0, MEASURING_SPREAD_MM)
  const halves = (mm: number) => Math.round(mm * 2) / 2
  for (const [index, weeks] of hand.weeksAgo.entries()) {
    const isLast = index === hand.weeksAgo.length - 1
    const grown = (hand.mmPerYear * weeks) / WEEKS_PER_YEAR
    const off = isLast ? 0 : noise()
    const on = weeksAgo(weeks)
    await handService(callAt(on)).create(studentId, {
      measuredOn: dayOf(on),
      comfortableSpanMm: halves(hand.comfortableMm - grown + off),
      reachedSpanMm: halves(hand.reachedMm - grown + off),
      fingerLengthsMm: null,
      fingertipWidthMm: isLast ? hand.fingertipMm : null,
      thumb: isLast ? hand.thumb : null,
    })
  }
  const marksOf = (items: readonly string[], state: MasteryState) =>
    items.map((item) => ({
      kind: item.includes('/') ? ('pattern' as const) : ('position' as const),
      item,
      state,
    }))
  const marks = [...marksOf(hand.secure, 'secure'), ...marksOf(hand.learning, 'learning')]
  if (marks.length > 0) await masteryService(callAt(weeksAgo(2))).mark(studentId, { marks })
}

/** Rounds through the setup, the fit to the body, and what the teacher said of gates. */
async function lookAtSetup(
  demo: DemoStudent,
  studentId: string,
  callAt: CallAt,
  weeksAgo: WeeksAgo,
): Promise<void> {
  const setup = DEMO_SETUPS[demo.name]
  if (!setup) return
  for (const { weeksAgo: weeks, not, measured = {}, pain } of setup.rounds) {
    const at = lessonTime(weeksAgo(weeks), demo.time)
    const items = arrangedItems(demo.family).map(({ id }) => id as SetupItemId)
    const stop = items.findIndex((id) => not[id] === 'no')
    const asked = stop < 0 ? items : items.slice(0, stop + 1)
    await setupService(callAt(at)).create(studentId, {
      takenAt: at.toISOString(),
      family: demo.family,
      answers: asked.map((itemId) => ({
        itemId,
        answer: not[itemId] ?? 'yes',
        measured: measured[itemId] ?? null,
        question: null,
      })),
      passed: [],
      note: '',
      pain: pain ? { ...pain, note: '' } : null,
    })
  }
  const last = weeksAgo(setup.rounds.at(-1)?.weeksAgo ?? 1)
  const service = setupService(callAt(last))
  if (setup.fit)
    await service.fit(studentId, {
      ...NO_BODY_FIT,
      family: demo.family,
      fittedOn: dayOf(last),
      note: '',
      ...setup.fit,
    })
  for (const mark of setup.gates ?? []) await service.markGate(studentId, { ...mark, state: 'yes', note: '' })
}

/** What a meter shows while the simulated player goes through the hand shape twice. */
function stringingOfDemo(demo: DemoStudent): Stringing {
  const instrument = DEMO_INSTRUMENTS.find((i) => i.label === demo.instrument)
  if (!instrument) throw new Error(`the demo student ${demo.name} has no instrument to play`)
  const { sizeId } = instrument
  return stringingOf({
    family: familyOf(demo.family),
    sizeId,
    system: fifths,
    lengthsMm: [lengthOf(instrument)],
  })
}

function exerciseOfDemo(
  { name, scale, shapeId }: DemoStudent,
  { family, tuning }: Stringing,
  string: string,
  isLast: boolean,
): Exercise {
  const stringIndex = stringNamed(tuning, string)!
  const made = exerciseOf(
    placementContext(family, tuning),
    scale && isLast
      ? { kind: 'scale', ...scale, openStrings: 'prefer' }
      : { kind: 'shape', stringIndex, shapeId },
  )
  if (!made.ok) throw new Error(`the demo student ${name} has nothing to play`)
  return made.exercise
}

/** As a page would send it. */
function draftExercise(exercise: Exercise, { tuning }: Stringing) {
  const row = exerciseRow(exercise, tuning)
  return { ...row, notes: [...row.notes] }
}

/** What a meter shows of two rounds. */
function read(stringing: Stringing, exercise: Exercise, faults: PlayerFaults, source: RandomSource) {
  return playExercise(source, stringing, exercise, faults, 2).map((landing) => ({
    finger: landing.finger,
    index: null,
    shownCents: Math.round(shownByMeter(stringing, landing)),
    atMs: null,
  }))
}

function fade(faults: PlayerFaults, left: number): PlayerFaults {
  return {
    ...faults,
    handOffsetMm: faults.handOffsetMm * left,
    frameErrorMm: faults.frameErrorMm * left,
    fingerOffsetMm: Object.fromEntries(
      Object.entries(faults.fingerOffsetMm).map(([finger, mm]) => [finger, mm * left]),
    ),
  }
}

function lastSaturday(now: Date): Date {
  const day = new Date(Date.UTC(now.getUTCFullYear(), now.getUTCMonth(), now.getUTCDate()))
  day.setUTCDate(day.getUTCDate() - ((day.getUTCDay() + 1) % 7))
  return day
}

function lessonTime(day: Date, time: string): Date {
  const [hours = 0, minutes = 0] = time.split(':').map(Number)
  return new Date(day.getTime() + (hours * 60 + minutes) * 60_000)
}
