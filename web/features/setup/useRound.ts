import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import {
  ALWAYS_FIRST,
  answerOf,
  firstPositionWidthMm,
  isSetupItem,
  itemsBehind,
  roundItems,
  isDrawnItem,
  setupFigure,
  setupLimits,
  setupMeasureOf,
  standingOf,
  type AnsweredItem,
  type RoundItem,
  type SetupAnswer,
} from '#core'
import type { SetupRound, SetupRoundDraft, Student } from '#contracts'
import { useDrafts } from '../../stores/drafts'
import { UNDO, useNotices } from '../../stores/notices'
import { useOutbox, Withdrawn } from '../../stores/outbox'
import { useSettings } from '../../stores/settings'
import { useStudio } from '../../stores/studio'
import { studioStringing } from '../../stores/stringing'
import { call } from '../../api/client'
import { itemWords, type ItemWords } from '../../words/setup'
import { scaleOf } from './scale'

/** Fields of the draft, by item. */
const ANSWER = 'answer '
const MEASURED = 'measured '
const PASSED = 'passed '
const FROM = 'from'
const PAIN_PLACE = 'pain place'
const PAIN_SINCE = 'pain since'
/** Of the items that a verdict points to: more marks would say nothing. */
const MOST_MARKED = 5

/**
 * A round through the setup of a student: what is asked now, at what it stopped, and what was answered so far. Answers stay
 * in this browser until they are kept, over a reload or a lost connection.
 */
export function useRound(student: Ref<Student | undefined>) {
  const drafts = useDrafts()
  const settings = useSettings()
  const outbox = useOutbox()
  const notices = useNotices()
  const studio = useStudio()
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
    type(ANSWER + item.id, item.id === ALWAYS_FIRST && value === 'nearly' ? 'no' : value)
    type(MEASURED + item.id, measured === undefined ? '' : String(measured))
    type(PASSED + item.id, '')
    lookedAtId.value = ''
  }

  /** Back to the item before, to answer it again. */
  function back() {
    const before = isDone.value ? items.value.at(-1) : items.value[index.value - 1]
    if (before) lookedAtId.value = before.id
  }

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

  /** The round that was just kept, as long as the same student stands there and it is not undone. */
  const kept = shallowRef<SetupRound>()
  watch(
    () => student.value?.id,
    () => (kept.value = undefined),
  )

  async function keep(): Promise<SetupRound | undefined> {
    const of = student.value
    if (!of || answers.value.length === 0 || outbox.isSending(sheet.value)) return undefined
    const draft = sheet.value
    const before = { ...texts.value }
    const input = { params: { studentId: of.id }, body: draftOf(of) }
    drafts.markSent(draft, input)
    try {
      const round = await outbox.send('setup.create', input, { what: `the setup of ${of.name}`, draft })
      drafts.clear(draft)
      lookedAtId.value = ''
      await studio.loadStudent(of.id)
      notices.say(`The setup is in the file of ${of.name}.`, {
        label: UNDO,
        run: async () => {
          await call('setup.remove', { params: { roundId: round.id } })
          if (kept.value?.id === round.id) kept.value = undefined
          for (const [field, text] of Object.entries(before)) drafts.type(draft, field, text)
          await studio.loadStudent(of.id)
          notices.say('Taken out of the file; the answers are here again.')
        },
      })
      if (round.painId === null && student.value?.id === of.id) kept.value = round
      return kept.value
    } catch (error) {
      if (error instanceof Withdrawn) return undefined
      throw error
    }
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
    figureOf,
    answer,
    back,
    keep,
    kept,
    isLookedAt: computed(() => lookedAtId.value !== ''),
    lookAt: (itemId: string) => (lookedAtId.value = itemId),
    /** Goes on past what is not right, which the round keeps in mind. */
    pass() {
      const item = standing.value.stoppedAt
      if (item) type(PASSED + item.id, 'yes')
    },
    /** Leaves out what went before the item at which the last round stopped. */
    goOnFrom: (itemId: string) => type(FROM, itemId),
    begin() {
      outbox.withdraw(sheet.value)
      drafts.clear(sheet.value)
      lookedAtId.value = ''
    },
    pain: computed(() => ({
      place: texts.value[PAIN_PLACE] ?? '',
      since: texts.value[PAIN_SINCE] ?? '',
    })),
    namePain: (place: string) => type(PAIN_PLACE, place),
    datePain: (since: string) => type(PAIN_SINCE, since),
    judge: (value: number): SetupAnswer | undefined =>
      measure.value?.limits && answerOf(value, measure.value.limits),
    isKeeping: computed(() => outbox.isSending(sheet.value)),
  }
}

export type Round = ReturnType<typeof useRound>
