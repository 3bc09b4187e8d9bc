import { computed, reactive, ref, shallowRef } from 'vue'
import { DEFAULT_SYSTEM_ID, familyOf, judgeLength, noteName, parseLength, sizeOf, type FamilyId } from '#core'
import { unreadableLength, type Level, type Student, type StudentDraft } from '#contracts'
import { ApiProblem, call } from '../../api/client'
import { useOutbox } from '../../stores/outbox'
import { useSession } from '../../stores/session'
import { useSettings } from '../../stores/settings'
import { lengthSentence } from '../../words/length'
import { LEVEL_NAMES, schoolName, shortSystemName, sizeName } from '../../words/trade'
import { studioDay } from '../../words/shown'

/** No row of tapes of the student's own: the studio's. */
export const AS_USUAL = 'as_usual'
/** Nothing is brought along: an instrument is lent later. */
export const NO_INSTRUMENT = 'later'
/** No tuning system of the student's own: the studio's. */
export const AS_STUDIO = 'as_studio'

const LEVELS = ['beginner', 'growing', 'trained'] as const
const OWN_TOLERANCES = [5, 8, 10, 12, 15, 20, 25, 30]

const NEW: Fields = {
  name: '',
  birthYear: '',
  family: 'violin',
  within: 'beginner',
  tapeSchoolId: AS_USUAL,
  system: AS_STUDIO,
  weekday: -1,
  time: '09:00',
  consentBy: '',
  consentOn: '',
  note: '',
  sizeId: NO_INSTRUMENT,
  length: '',
}

export interface Fields {
  name: string
  birthYear: string
  family: FamilyId
  /** A level, whose tolerance is the studio’s, or cents of the student’s own. */
  within: Level | number
  tapeSchoolId: string
  system: string
  weekday: number
  time: string
  /** Who allowed sound to be kept, and when; empty for nobody. */
  consentBy: string
  consentOn: string
  note: string
  /** Of the instrument that is brought along, and its length as it was measured; asked of who is enrolled. */
  sizeId: string
  length: string
}

/** What a file already has: an instrument is brought along by who is new. */
export type FileField = Exclude<keyof Fields, 'sizeId' | 'length'>
const FILE_FIELDS = (Object.keys(NEW) as (keyof Fields)[]).filter(
  (field): field is FileField => field !== 'sizeId' && field !== 'length',
)

/** One field that two teachers changed to different things at the same time. */
export interface Difference {
  readonly field: FileField
  readonly mine: Fields[FileField]
  readonly theirs: Fields[FileField]
  readonly chosen: 'mine' | 'theirs' | undefined
}

/** The form of a student's file: what is typed, what is wrong with it, and saving without losing anybody's change. */
export function useStudentForm(onSaved: (student: Student) => void) {
  const outbox = useOutbox()
  const session = useSession()
  const settings = useSettings()
  const fields = reactive<Fields>({ ...NEW })
  const problem = ref<ApiProblem>()
  /** What somebody else saved while this form was open. */
  const theirs = ref<Student>()
  /** What both changed, to choose from; what only the other one changed is taken over. */
  const differences = ref<Difference[]>([])
  const busy = ref(false)
  const editing = shallowRef<Student>()
  /** A length that does not suit its size was measured twice. */
  const keepsLength = ref(false)

  function open(student: Student | undefined) {
    editing.value = student
    problem.value = undefined
    theirs.value = undefined
    differences.value = []
    keepsLength.value = false
    Object.assign(fields, student ? fieldsOf(student) : NEW)
  }

  async function save() {
    busy.value = true
    problem.value = undefined
    try {
      const draft = draftOf(fields)
      const before = editing.value
      const saved = before
        ? await call('students.update', {
            params: { studentId: before.id },
            body: { version: theirs.value?.version ?? before.version, ...draft },
          })
        : await outbox.send(
            'students.create',
            { body: { ...draft, instrument: broughtOf(fields, keepsLength.value) } },
            { what: `the file of ${draft.name}` },
          )
      onSaved(saved)
    } catch (error) {
      if (!(error instanceof ApiProblem) || error.code === 'not_signed_in') throw error
      problem.value = error
      if (error.code === 'changed_meanwhile') meet(error.problem?.data as Student)
    } finally {
      busy.value = false
    }
  }

  /** Somebody else's save meets what is typed here, field by field: nothing is guessed that both have changed. */
  function meet(saved: Student) {
    const [was, now] = [fieldsOf(theirs.value ?? editing.value!), fieldsOf(saved)]
    const mine: Fields = { ...fields }
    for (const field of FILE_FIELDS) if (mine[field] === was[field]) put(field, now[field])
    differences.value = FILE_FIELDS.filter(
      (field) => mine[field] !== was[field] && now[field] !== was[field] && mine[field] !== now[field],
    ).map((field) => ({ field, mine: mine[field], theirs: now[field], chosen: undefined }))
    theirs.value = saved
  }
  function put(field: FileField, value: Fields[FileField]) {
    Object.assign(fields, { [field]: value })
  }

  return {
    fields,
    theirs,
    differences,
    choose(field: FileField, whose: 'mine' | 'theirs') {
      differences.value = differences.value.map((one) =>
        one.field === field ? { ...one, chosen: whose } : one,
      )
      const one = differences.value.find((other) => other.field === field)
      if (one) put(field, one[whose])
    },
    /** Every field that two have changed is decided. */
    isDecided: computed(() => differences.value.every(({ chosen }) => chosen !== undefined)),
    busy,
    open,
    save,
    /** Whether the length suits the size, as it is typed; empty where there is nothing to say. */
    lengthSays: computed(() => {
      const family = familyOf(fields.family)
      const size = sizeOf(family, fields.sizeId)
      const parsed = parseLength(fields.length)
      if (fields.length.trim() === '') return ''
      if (!size) return 'Of which size? Choose it too.'
      return parsed.ok
        ? lengthSentence(family.id, size.id, judgeLength(family, size, parsed))
        : unreadableLength(parsed)
    }),
    isDoubtful: computed(() => problem.value?.code === 'length_doubtful'),
    async keepLength() {
      keepsLength.value = true
      await save()
    },
    sizes: computed(() => [
      { value: NO_INSTRUMENT, label: 'Lent later' },
      ...familyOf(fields.family).sizes.map(({ id }) => ({ value: id, label: sizeName(id) })),
    ]),
    /** Drops what was typed for what somebody else saved. */
    takeTheirs: () => theirs.value && open(theirs.value),
    fault: (path: string) => problem.value?.field(path),
    /** What is wrong with the whole, where no field says it. */
    generalFault: computed(() => {
      const p = problem.value
      if (!p || p.code === 'changed_meanwhile') return undefined
      return p.problem?.fields ? undefined : p.message
    }),
    /** Asked where the studio keeps sound, and where consent was given before. */
    asksConsent: computed(() => settings.settings?.keepsSound === true || fields.consentBy !== ''),
    /** Saving removes recordings. */
    withdraws: computed(
      () => (editing.value?.soundConsent ?? null) !== null && fields.consentBy.trim() === '',
    ),
    systems: computed(() => {
      const open = familyOf(fields.family).tuning.map((n) => `just:${noteName(n, { octave: false })}`)
      const ids = new Set([
        'fifths',
        'equal',
        ...open,
        ...(fields.system === AS_STUDIO ? [] : [fields.system]),
      ])
      return [
        {
          value: AS_STUDIO,
          label: `As the studio: ${shortSystemName(session.session?.studio.system ?? DEFAULT_SYSTEM_ID)}`,
        },
        ...[...ids].map((id) => ({ value: id, label: shortSystemName(id) })),
      ]
    }),
    tolerances: computed(() => {
      const levels = settings.settings?.tolerances
      const own = OWN_TOLERANCES.includes(Number(fields.within))
        ? OWN_TOLERANCES
        : [...OWN_TOLERANCES, ...(typeof fields.within === 'number' ? [fields.within] : [])]
      return [
        ...LEVELS.map((level) => ({
          value: level,
          label: `${LEVEL_NAMES[level]}${levels ? `, ${levels[level]} cents` : ''}`,
        })),
        ...own.map((value) => ({ value, label: `${value} cents, this student’s own` })),
      ]
    }),
    schools: computed(() => [
      { value: AS_USUAL, label: `As the studio: ${schoolName(settings.tapeSchoolId(fields.family))}` },
      ...familyOf(fields.family).schools.map(({ id }) => ({ value: id, label: schoolName(id) })),
    ]),
  }
}

function fieldsOf(student: Student): Fields {
  return {
    name: student.name,
    birthYear: student.birthYear === null ? '' : String(student.birthYear),
    family: student.family,
    within: student.level ?? student.toleranceCents,
    tapeSchoolId: student.tapeSchoolId ?? AS_USUAL,
    system: student.system ?? AS_STUDIO,
    weekday: student.lesson?.weekday ?? -1,
    time: student.lesson?.time ?? NEW.time,
    consentBy: student.soundConsent?.by ?? '',
    consentOn: student.soundConsent?.on ?? '',
    note: student.note,
    sizeId: NO_INSTRUMENT,
    length: '',
  }
}

function broughtOf({ sizeId, length }: Fields, keepAnyway: boolean): StudentDraft['instrument'] {
  // A length alone is sent too: it is refused at its field, and must not pass for none.
  if (sizeId === NO_INSTRUMENT && length.trim() === '') return null
  return { sizeId, length, on: studioDay(), keepAnyway }
}

function draftOf(fields: Fields): Omit<StudentDraft, 'instrument'> {
  const year = fields.birthYear.trim()
  return {
    name: fields.name,
    // A slip as 2O17 is sent as a year that nobody was born in, and refused at its field: it must not pass for none.
    birthYear: year === '' ? null : /^\d+$/.test(year) ? Number(year) : 0,
    family: fields.family,
    ...(typeof fields.within === 'number'
      ? { level: null, toleranceCents: fields.within }
      : { level: fields.within }),
    tapeSchoolId: fields.tapeSchoolId === AS_USUAL ? null : fields.tapeSchoolId,
    system: fields.system === AS_STUDIO ? null : fields.system,
    lesson: fields.weekday < 0 ? null : { weekday: fields.weekday, time: fields.time },
    soundConsent:
      fields.consentBy.trim() === '' ? null : { by: fields.consentBy, on: fields.consentOn || studioDay() },
    note: fields.note,
  }
}
