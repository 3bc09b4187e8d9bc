import {
  familyOf,
  isPracticeId,
  placeOfNote,
  practiceNotes,
  practiceSheet,
  PAPERS,
  SHEET_MARGIN_MM,
  stripOf,
  takeScore,
  typicalStringing,
  type DrawnLine,
  type Page,
  type PaperId,
  type ExerciseId,
  type Stringing,
} from '#core'
import type { Plan, Student } from '#contracts'
import { STOP_AT_PAIN } from '../../words/advice'
import { dayName, shortDay } from '../../words/dates'
import { fingerSign } from '../../words/fingers'
import { noteLabel } from '../../words/notes'
import { practiceName, reasonSentence, stopSentence, weeksSentence } from '../../words/plan'
import { doseSentence, practiceHow } from '../../words/practice'
import { shown } from '../../words/shown'
import { instrumentKind } from '../../words/trade'
import { daysOfWeek } from './week'

/** A plan with whose it is, and their strings. */
export interface SheetOf {
  readonly plan: Plan
  readonly student: Student
  readonly stringing: Stringing
}

/** A staff’s space for a child at a stand, mm. From memory: engravers’ sizes run from 1.6 to 2.4. */
const SPACE_MM = 2
/** More than this of notes and a child does not find the boxes. Chosen. */
const MOST_STAVES = 3

export function sheetStringing(
  student: Student,
  stringing: Stringing | undefined,
  systemOf: Stringing['system'],
): Stringing {
  const family = familyOf(student.family)
  return stringing ?? typicalStringing(family, student.instrument?.sizeId ?? family.sizes[0]!.id, systemOf)
}

/** One student’s week on one page: boxes, sentences, notes with fingers, and the board. */
export async function planSheet({ plan, student, stringing }: SheetOf, paper: PaperId): Promise<Page> {
  const days = daysOfWeek(plan.startsOn)
  const ids = [...new Set(plan.cards.map(({ exerciseId }) => exerciseId))]
  const widthMm = PAPERS[paper].widthMm - 2 * SHEET_MARGIN_MM
  const hasTapes = (student.instrument?.tapes.length ?? 0) > 0
  const played = ids.flatMap((id) => notesOfCard(id, plan, stringing) ?? [])
  const music: { name: string; lines: readonly DrawnLine[] }[] = []
  if (played.length > 0) {
    const { linesForPaper } = await import('../../notation/lines')
    // What a teacher wrote herself stands in no other book.
    const isKnown = ({ id }: { id: ExerciseId }) => Number(isPracticeId(id))
    const drawn = [...played].sort((a, b) => isKnown(a) - isKnown(b)).slice(0, MOST_STAVES)
    for (const { id, keyId, notes } of played.filter((one) => drawn.includes(one))) {
      const score = takeScore(stringing, notes, keyId)
      music.push({ name: practiceName(id), lines: await linesForPaper(score, widthMm, SPACE_MM) })
    }
  }
  const places = new Map<string, { stringIndex: number; placeMm: number; finger: string }>()
  for (const { notes } of played)
    for (const { finger, note, stringIndex } of notes) {
      if (finger === 0) continue
      const placeMm = placeOfNote(stringing, stringIndex, note)
      places.set(`${stringIndex} ${placeMm.toFixed(1)}`, { stringIndex, placeMm, finger: fingerSign(finger) })
    }
  const strip =
    places.size === 0
      ? undefined
      : stripOf(
          {
            board: stringing.board,
            strings: stringing.tuning.map((open) => noteLabel(open, { octave: false })),
            places: [...places.values()],
            words: { strip: 'The board from the nut, the lowest string nearest to you.' },
          },
          widthMm,
        )
  return practiceSheet({
    title: `${student.name}: the week from ${shortDay(plan.startsOn)}`,
    subtitle: [
      `${plan.minutesADay} minutes a day`,
      student.instrument ? instrumentKind(student.family, student.instrument.sizeId) : student.family,
    ].join(' · '),
    paper,
    days: days.map(dayName),
    rows: ids.map((id) => {
      const cards = plan.cards.filter(({ exerciseId }) => exerciseId === id)
      const [{ reason, minutes }] = cards as [Plan['cards'][number]]
      const finding = reason.code === 'finding' || reason.code === 'review' ? reason.finding : undefined
      const sentences = [
        reason.code === 'piece' ? '' : practiceHow(id, { hasTapes, finding }),
        doseSentence(id),
        reason.code === 'asked' ? '' : reasonSentence(reason, plan.family),
        weeksSentence(id),
        stopSentence(id),
      ]
      return {
        name: practiceName(id),
        minutes: `${minutes} min`,
        how: sentences.filter((text) => text !== '').join(' '),
        days: days.map((day) => cards.some(({ on }) => on === day)),
      }
    }),
    music,
    strip,
    foot: ['Tune first. Tick what was done; an empty box is no fault.', STOP_AT_PAIN],
  }).page
}

function notesOfCard(id: ExerciseId, plan: Plan, { tuning }: Stringing) {
  const reason = plan.cards.find(({ exerciseId }) => exerciseId === id)?.reason
  const finding = reason?.code === 'finding' || reason?.code === 'review' ? reason.finding : undefined
  const made = practiceNotes(id, { familyId: plan.family, tuning, finding, own: shown.exercises.all })
  if (!made) return undefined
  return { id, keyId: 'keyId' in made.name ? made.name.keyId : undefined, notes: made.notes }
}
