import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import type { ExerciseId } from '#core'
import type { Plan, PracticeEntry, Student } from '#contracts'
import type { Loaded } from '../../api/useLoaded'
import { useOutbox } from '../../stores/outbox'
import { shortDay } from '../../words/dates'
import { studioDay } from '../../words/shown'

const keyOf = ({ on, exerciseId }: Pick<PracticeEntry, 'on' | 'exerciseId'>) => `${on} ${exerciseId}`

/** What was done of a plan: day by day with one key each, or exercise by exercise. */
export function useLog(
  student: Ref<Student | undefined>,
  plan: Ref<Plan | undefined>,
  practice: Loaded<PracticeEntry[]>,
) {
  const outbox = useOutbox()
  const today = studioDay()
  /** Its days that have come, with what each asked for. */
  const days = computed(() => {
    const byDay = new Map<string, Plan['cards'][number][]>()
    for (const card of plan.value?.cards ?? [])
      if (card.on <= today) byDay.set(card.on, [...(byDay.get(card.on) ?? []), card])
    return [...byDay].map(([day, cards]) => ({ day, cards }))
  })
  /** Said here and not yet answered: it stands at once, also while the server is away. */
  const unsent = shallowRef<readonly PracticeEntry[]>([])
  const done = computed(() => {
    const known = new Map((practice.data.value ?? []).map((entry) => [keyOf(entry), entry]))
    for (const entry of unsent.value)
      if (entry.isDone) known.set(keyOf(entry), entry)
      else known.delete(keyOf(entry))
    return known
  })
  const entryOf = (day: string, exerciseId: string) => done.value.get(`${day} ${exerciseId}`)

  /** The day that the next key is about: the first after the last one that something was said of. */
  const at = ref(0)
  watch(
    () => [plan.value?.id, practice.data.value !== undefined].join(),
    () => {
      const last = days.value.findLastIndex(({ day, cards }) =>
        cards.some((card) => entryOf(day, card.exerciseId)),
      )
      at.value = last + 1
    },
    { immediate: true },
  )

  async function say(
    entries: {
      exerciseId: ExerciseId
      on: string
      isDone: boolean
      minutes: number | null
      times?: number | null
    }[],
  ) {
    const of = student.value
    if (!of || entries.length === 0) return
    const what = `what ${of.name} practised on ${shortDay(entries[0]!.on)}`
    const mine = entries.map((entry) => ({ times: null, ...entry, studentId: of.id, by: '', at: '' }))
    unsent.value = [...unsent.value, ...mine]
    try {
      practice.put(
        await outbox.send('practice.say', { params: { studentId: of.id }, body: { entries } }, { what }),
      )
    } finally {
      unsent.value = unsent.value.filter((entry) => !mine.includes(entry))
    }
  }

  return {
    days,
    at,
    entryOf,
    isOver: computed(() => at.value >= days.value.length),

    /** All that the day asked for was done, or nothing; then it is the next day’s turn. */
    async sayDay(isDone: boolean) {
      const now = days.value[at.value]
      if (!now) return
      at.value++
      const cards = isDone ? now.cards : now.cards.filter((card) => entryOf(now.day, card.exerciseId))
      await say(
        cards.map(({ exerciseId, minutes }) => ({
          exerciseId,
          on: now.day,
          isDone,
          minutes: isDone ? minutes : null,
        })),
      )
    },
    back() {
      at.value = Math.max(0, at.value - 1)
    },
    async toggle(day: string, { exerciseId, minutes }: Plan['cards'][number]) {
      const isDone = entryOf(day, exerciseId) === undefined
      await say([{ exerciseId, on: day, isDone, minutes: isDone ? minutes : null }])
    },
    say,
  }
}

export type PracticeLog = ReturnType<typeof useLog>
