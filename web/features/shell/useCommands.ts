import { computed } from 'vue'
import { useRouter, type RouteLocationRaw } from 'vue-router'
import { parseKey } from '#core'
import { ROOMS } from '../../rooms'
import { useLesson } from '../../stores/lesson'
import { useSession } from '../../stores/session'
import { useStudio } from '../../stores/studio'
import { useTheme } from '../../stores/theme'
import { noteLabel } from '../../words/notes'
import { familyName, instrumentKind } from '../../words/trade'
import { useSignOut } from './useSignOut'

export interface Command {
  readonly id: string
  readonly title: string
  readonly hint: string
  /** More words that it is found by. */
  readonly kind?: string
  readonly run: () => unknown
}

/** Words that somebody looks for and that no room is called by. */
const ALSO_CALLED: Readonly<Record<string, string>> = {
  tapes: 'fingerboard places measure string length bench',
  setup: 'posture pain hold',
  check: 'listen microphone take verdict intonation',
  patterns: 'hand frame keys finger',
  instruments: 'cupboard lend loan',
  studio: 'settings schools tolerance sound units time zone paper',
}
/** What can be done, and the room in which it is one key away. */
const ACTIONS = [
  { title: 'Lay tapes', kind: 'put on fingerboard', to: 'tapes' },
  { title: 'Print tape strips', kind: 'pdf paper', to: 'instruments' },
  { title: 'Print a scale or an arpeggio', kind: 'pdf paper notes sheet musicxml', to: 'scales' },
  { title: 'Practice of the class: who did what', kind: 'plan week log homework group', to: 'practice' },
  { title: 'Mark pain', kind: 'hurts numb tingles', to: 'setup' },
  { title: 'All drawings of the setup', kind: 'pictures figures', to: 'drawings' },
  { title: 'Save the cupboard as a table', kind: 'export csv json backup', to: 'instruments' },
] as const

const LOOKED_FOR = 9

/** A key as it is typed, as `Eb` or `f# minor`: its patterns. Undefined of what is none. */
export function keyCommand(text: string, go: (to: RouteLocationRaw) => unknown): Command | undefined {
  const parsed = parseKey(text)
  if (!parsed.ok) return undefined
  const { tonic, mode, id } = parsed.key
  return {
    id: `key-${id}`,
    title: `${noteLabel(tonic, { octave: false })} ${mode.id.replaceAll('_', ' ')}`,
    hint: 'key, in Patterns',
    run: () => go({ name: 'patterns', query: { key: text } }),
  }
}

/** Reads whom a search may be about: a studio of usual size is known from the start, a larger one is not. */
export async function lookFor(text: string): Promise<void> {
  const q = text.replace(/^\s*(check|hand of)\s+/i, '').trim()
  if (q === '') return
  const studio = useStudio()
  await Promise.all([
    studio.findStudents({ q, limit: LOOKED_FOR }),
    studio.findInstruments({ q, limit: LOOKED_FOR }),
  ])
}

/** Everything the palette can find. */
export function useCommands() {
  const router = useRouter()
  const studio = useStudio()
  const lesson = useLesson()
  const session = useSession()
  const theme = useTheme()
  const signOut = useSignOut()

  return computed<Command[]>(() => [
    ...ROOMS.map((room) => ({
      id: room.name,
      title: room.title,
      hint: 'room',
      kind: ALSO_CALLED[room.name] ?? '',
      run: () => router.push({ name: room.name }),
    })),
    ...studio.roster.flatMap((student) => [
      {
        id: `file-${student.id}`,
        title: student.name,
        hint: familyName(student.family),
        run: () => router.push({ name: 'student', params: { studentId: student.id } }),
      },
      {
        id: `hand-${student.id}`,
        title: `Hand of ${student.name}`,
        hint: 'measures, growth, fit',
        run: () => router.push({ name: 'hand', params: { studentId: student.id } }),
      },
      {
        id: `setup-${student.id}`,
        title: `Setup of ${student.name}`,
        hint: 'a round before a note is judged',
        run: () => {
          lesson.begin(student.id)
          return router.push({ name: 'setup' })
        },
      },
      {
        id: `record-${student.id}`,
        title: `Fit and gates of ${student.name}`,
        hint: 'setup record',
        run: () => router.push({ name: 'setup-record', params: { studentId: student.id } }),
      },
      {
        id: `plan-${student.id}`,
        title: `Plan the week of ${student.name}`,
        hint: 'practice',
        run: () => router.push({ name: 'plan', params: { studentId: student.id } }),
      },
      {
        id: `check-${student.id}`,
        title: `Check ${student.name}`,
        hint: 'check',
        run: () => {
          lesson.begin(student.id)
          return router.push({ name: 'check' })
        },
      },
    ]),
    ...[
      { name: 'scales', title: 'Scales and drills' },
      { name: 'shifts', title: 'Shifts' },
      { name: 'frame', title: 'Frame and fit' },
    ].map(({ name, title }) => ({ id: name, title, hint: 'Patterns', run: () => router.push({ name }) })),
    ...[
      { name: 'eye', title: 'Practise the eye: name what a hidden hand does' },
      { name: 'findings', title: 'Every finding, as a simulated student plays it' },
    ].map(({ name, title }) => ({ id: name, title, hint: 'Check', run: () => router.push({ name }) })),
    {
      id: 'new-student',
      title: 'New student',
      hint: 'action',
      run: () => router.push({ name: 'students', query: { new: '1' } }),
    },
    {
      id: 'compare',
      title: 'Changing size: compare two instruments',
      hint: 'action',
      run: () => router.push({ name: 'compare' }),
    },
    ...ACTIONS.map(({ title, kind, to }) => ({
      id: title,
      title,
      hint: 'action',
      kind,
      run: () => router.push({ name: to }),
    })),
    {
      id: 'import',
      title: 'Bring in a table of instruments',
      hint: 'action',
      kind: 'import csv spreadsheet file',
      run: () => router.push({ name: 'import' }),
    },
    ...studio.cupboard.map((instrument) => ({
      id: `instrument-${instrument.id}`,
      title: instrument.label,
      hint: instrumentKind(instrument.family, instrument.sizeId),
      kind: `${instrument.family} ${instrument.sizeId}`,
      run: () => router.push({ name: 'instrument', params: { instrumentId: instrument.id } }),
    })),
    {
      id: 'account',
      title: 'Account, sessions and password',
      hint: 'action',
      run: () => router.push({ name: 'account' }),
    },
    ...(session.session?.user.role === 'owner'
      ? [
          {
            id: 'people',
            title: 'Who teaches here: people, keys, who saw and changed what',
            kind: 'invite audit log owner colleague',
            hint: 'action',
            run: () => router.push({ name: 'people' }),
          },
        ]
      : []),
    ...(session.session?.isOperator
      ? [
          {
            id: 'server',
            title: 'How the server is',
            kind: 'backup cluster metrics operator',
            hint: 'action',
            run: () => router.push({ name: 'server' }),
          },
        ]
      : []),
    {
      id: 'theme',
      title: theme.isDark ? 'Light theme' : 'Dark theme',
      hint: 'action',
      run: () => theme.toggle(),
    },
    {
      id: 'sign-out',
      title: 'Sign out',
      hint: session.session?.user.name ?? 'action',
      run: signOut,
    },
  ])
}
