import { computed, type Ref } from 'vue'
import { roundItems, standingOf, type AnsweredItem, type RoundItem, type SetupAnswer } from '#core'
import type { SetupRoundDraft, Student } from '#contracts'
import { useDrafts } from '../../stores/drafts'
import { useSettings } from '../../stores/settings'

/** Fields of the draft, by item. */
const ANSWER = 'answer '
const MEASURED = 'measured '
const PASSED = 'passed '
const FROM = 'from'
const PAIN_PLACE = 'pain place'
const PAIN_SINCE = 'pain since'

/** The answers of a round, as they lie in this browser until they are kept: what was said, what it stands at, and what is sent. */
export function useRoundAnswers(student: Ref<Student | undefined>) {
  const drafts = useDrafts()
  const settings = useSettings()
  /** The family it was begun for is part of its name: who changes to another begins anew. */
  const sheet = computed(() => `setup ${student.value?.id ?? ''} ${student.value?.family ?? ''}`)
  const texts = computed(() => drafts.textsOf(sheet.value))
  const type = (field: string, text: string) => drafts.type(sheet.value, field, text)

  const schools = computed(() => settings.schoolsOf(student.value))
  const all = computed(() => roundItems(student.value?.family ?? 'violin', settings.arrangement))
  const itemIds = computed(() => all.value.map(({ id }) => id))
  /** Pain is asked in every round; the others from the first, or from where the last round stopped. */
  const items = computed<readonly RoundItem[]>(() => {
    const from = itemIds.value.indexOf(texts.value[FROM] ?? '')
    return from < 0 ? all.value : [all.value[0]!, ...all.value.slice(Math.max(1, from))]
  })
  const answers = computed<AnsweredItem[]>(() =>
    items.value.flatMap(({ id }) => {
      const answer = texts.value[ANSWER + id]
      if (answer !== 'yes' && answer !== 'nearly' && answer !== 'no') return []
      const measured = texts.value[MEASURED + id]
      return [{ itemId: id, answer, measured: measured ? Number(measured) : null }]
    }),
  )
  const passed = computed(() => items.value.map(({ id }) => id).filter((id) => texts.value[PASSED + id]))
  const standing = computed(() => standingOf(items.value, answers.value, passed.value))

  function draftOf(of: Student): SetupRoundDraft {
    const hurts = answers.value.some(({ itemId, answer: said }) => itemId === 'pain' && said !== 'yes')
    const questionOf = (id: string) => items.value.find((item) => item.id === id)?.own?.question ?? null
    return {
      takenAt: new Date().toISOString(),
      family: of.family,
      answers: answers.value.map((one) => ({ ...one, question: questionOf(one.itemId) })),
      passed: passed.value,
      pain: hurts ? { place: texts.value[PAIN_PLACE] ?? '', since: texts.value[PAIN_SINCE] ?? '' } : null,
    }
  }

  return {
    sheet,
    texts,
    schools,
    itemIds,
    items,
    answers,
    passed,
    standing,
    draftOf,
    say(itemId: string, answer: SetupAnswer, measured?: number) {
      type(ANSWER + itemId, answer)
      type(MEASURED + itemId, measured === undefined ? '' : String(measured))
      type(PASSED + itemId, '')
    },
    /** Goes on past what is not right, which the round keeps in mind. */
    pass: (itemId: string) => type(PASSED + itemId, 'yes'),
    /** Leaves out what went before the item at which the last round stopped. */
    goOnFrom: (itemId: string) => type(FROM, itemId),
    pain: computed(() => ({
      place: texts.value[PAIN_PLACE] ?? '',
      since: texts.value[PAIN_SINCE] ?? '',
    })),
    namePain: (place: string) => type(PAIN_PLACE, place),
    datePain: (since: string) => type(PAIN_SINCE, since),
    clear: () => drafts.clear(sheet.value),
  }
}

export type RoundAnswers = ReturnType<typeof useRoundAnswers>
