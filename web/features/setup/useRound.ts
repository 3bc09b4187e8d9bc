import { computed, ref, watch, type Ref } from 'vue'
import {
  ALWAYS_FIRST,
  answerOf,
  firstPositionWidthMm,
  isDrawnItem,
  isSetupItem,
  itemsBehind,
  setupFigure,
  setupLimits,
  setupMeasureOf,
  type ExerciseId,
  type RoundItem,
  type SetupAnswer,
} from '#core'
import type { Student } from '#contracts'
import { useOutbox } from '../../stores/outbox'
import { studioStringing } from '../../stores/stringing'
import { useStudio } from '../../stores/studio'
import { itemWords, type ItemWords } from '../../words/setup'
import { shown } from '../../words/shown'
import { scaleOf } from './scale'
import { useKeepRound } from './useKeepRound'
import { useRoundAnswers } from './useRoundAnswers'

/** Of the items that a verdict points to: more marks would say nothing. */
const MOST_MARKED = 5

/**
 * A round through the setup of a student: what is asked now, at what it stopped, and what was answered so far. Answers stay
 * in this browser until they are kept, over a reload or a lost connection.
 */
export function useRound(student: Ref<Student | undefined>) {
  const outbox = useOutbox()
  const studio = useStudio()
  const given = useRoundAnswers(student)
  const { sheet, schools, itemIds, items, answers, standing } = given
  /** An item that is looked at again, out of its turn. */
  const lookedAtId = ref('')
  watch(sheet, () => (lookedAtId.value = ''))
  const at = computed<RoundItem | undefined>(
    () =>
      items.value.find(({ id }) => id === lookedAtId.value) ??
      standing.value.asks ??
      standing.value.stoppedAt,
  )
  const index = computed(() => items.value.findIndex(({ id }) => id === at.value?.id))
  const isStopped = computed(() => lookedAtId.value === '' && standing.value.stoppedAt !== undefined)
  const isDone = computed(() => lookedAtId.value === '' && !standing.value.asks && !standing.value.stoppedAt)

  function wordsOf(item: RoundItem): ItemWords {
    if (item.own) return item.own
    if (!isSetupItem(item.id)) throw new Error(`no item ${item.id}`)
    return itemWords(item.id, schools.value, student.value?.family ?? 'violin')
  }

  /** What is tried where an item is not right, the first first. */
  function remediesOf({ id }: RoundItem): readonly ExerciseId[] {
    if (!isSetupItem(id)) return []
    return shown.exercises.forItem(id, student.value?.family ?? 'violin', schools.value)
  }

  const suggested = computed<readonly string[]>(() => {
    const of = student.value
    const behind = of?.lastCheck ? itemsBehind(of.lastCheck.verdict, of.family, itemIds.value) : []
    return behind.slice(0, MOST_MARKED)
  })
  const last = computed(() => student.value?.setup?.standings.find(({ itemId }) => itemId === at.value?.id))

  const scale = computed(() => scaleOf(student.value))
  /** The player’s own hand for its instrument, where both were measured. */
  const handSize = computed(() => {
    const { hand, instrument } = student.value ?? {}
    if (!hand || !instrument?.measurement) return undefined
    const strings = studioStringing(instrument, studio.systemOf(instrument, student.value))
    return hand.comfortableSpanMm / firstPositionWidthMm(strings, strings.family.frames[0]!)
  })
  const measure = computed(() => {
    const id = at.value?.id ?? ''
    const of = setupMeasureOf(id)
    return of && { ...of, limits: setupLimits(id, schools.value, scale.value) }
  })

  function figureOf(itemId: string, side: 'right' | 'wrong', measured?: number) {
    if (!isDrawnItem(itemId)) return undefined
    return setupFigure(itemId, {
      side,
      schools: schools.value,
      family: student.value?.family ?? 'violin',
      hand: handSize.value,
      scale: scale.value,
      measured,
    })
  }

  function answer(value: SetupAnswer, measured?: number) {
    const item = at.value
    if (!item) return
    outbox.withdraw(sheet.value)
    // What nearly hurts hurts.
    given.say(item.id, item.id === ALWAYS_FIRST && value === 'nearly' ? 'no' : value, measured)
    lookedAtId.value = ''
  }

  /** Back to the item before, to answer it again. */
  function back() {
    const before = isDone.value ? items.value.at(-1) : items.value[index.value - 1]
    if (before) lookedAtId.value = before.id
  }

  return {
    schools,
    items,
    answers,
    standing,
    at,
    index,
    isStopped,
    isDone,
    suggested,
    last,
    measure,
    scale,
    wordsOf,
    remediesOf,
    figureOf,
    answer,
    back,
    ...useKeepRound(student, given, () => (lookedAtId.value = '')),
    isLookedAt: computed(() => lookedAtId.value !== ''),
    lookAt: (itemId: string) => (lookedAtId.value = itemId),
    pass() {
      const item = standing.value.stoppedAt
      if (item) given.pass(item.id)
    },
    goOnFrom: given.goOnFrom,
    pain: given.pain,
    namePain: given.namePain,
    datePain: given.datePain,
    begin() {
      outbox.withdraw(sheet.value)
      given.clear()
      lookedAtId.value = ''
    },
    judge: (value: number): SetupAnswer | undefined =>
      measure.value?.limits && answerOf(value, measure.value.limits),
  }
}

export type Round = ReturnType<typeof useRound>
