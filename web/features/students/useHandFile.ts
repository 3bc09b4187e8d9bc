import { computed, type Ref } from 'vue'
import { dayNumber, dayOf, familyOf, growthOf, knownSystem, nextSize, whenSpanIs, type Growth } from '#core'
import type { HandMeasurement, HandMeasurementDraft, Student } from '#contracts'
import { call } from '../../api/client'
import { useLoaded } from '../../api/useLoaded'
import { UNDO, useNotices } from '../../stores/notices'
import { useOutbox } from '../../stores/outbox'
import { useStudio } from '../../stores/studio'
import { inUnit, length, listed } from '../../words/numbers'
import { whenSentence } from '../../words/hand-fit'
import { sizeName } from '../../words/trade'
import { shortDay } from '../../words/dates'
import { studioDay } from '../../words/shown'

/** A student's hand over time: what was measured, how it grows, and what can be done with a measurement. */
export function useHandFile(studentId: Ref<string>, student: Ref<Student | undefined>) {
  const studio = useStudio()
  const notices = useNotices()
  const outbox = useOutbox()
  const loaded = useLoaded(
    () => studentId.value,
    (id) => call('hands.list', { params: { studentId: id } }),
  )
  const history = loaded.data

  async function reload() {
    await Promise.all([loaded.reload(), studio.loadStudent(studentId.value)])
  }

  /** Oldest first. */
  const spans = computed(() =>
    [...(history.value ?? [])].reverse().map(({ measuredOn, comfortableSpanMm }) => ({
      day: dayNumber(measuredOn),
      spanMm: comfortableSpanMm,
    })),
  )
  const growth = computed<Growth | undefined>(() => history.value && growthOf(spans.value))
  /** The size above the one in hand, and the span it asks for. */
  const next = computed(() => {
    const instrument = student.value?.instrument
    if (!instrument) return undefined
    const system = knownSystem(studio.systemOf(instrument, student.value))
    return nextSize(familyOf(instrument.family), instrument.sizeId, system)
  })

  const growthSentence = computed(() => {
    if (!growth.value) return ''
    if (growth.value.outcome === 'too_few')
      return `Too few measurements to tell the growth: ${growth.value.count} of ${growth.value.needed}. Measure again in about half a year.`
    if (growth.value.outcome === 'too_close')
      return 'The measurements lie too close together to tell the growth: half a year apart at least.'
    const { mmPerYear, intervalMmPerYear, wildDays } = growth.value
    const [low, high] = intervalMmPerYear.map((one) => inUnit(one))
    const wild = wildDays.map((day) => shortDay(dayOf(day)))
    const leftOut =
      wild.length > 0 ? ` The measure of ${listed(wild)} fits with none of the others and is left out.` : ''
    return `The span grows ${length(mmPerYear)} a year (four times in five ${low} to ${high}).${leftOut}`
  })
  const nextSentence = computed(() => {
    if (growth.value?.outcome !== 'line') return ''
    if (!student.value?.instrument) return 'Lend an instrument to see when the next size will fit.'
    if (!next.value) return 'The instrument is full size.'
    const today = dayNumber(studioDay())
    const when = whenSpanIs(growth.value, next.value.spanMm, today)
    return whenSentence(
      when,
      `${sizeName(next.value.sizeId)} (frame ${length(next.value.spanMm)})`,
      dayOf,
      today,
    )
  })

  return {
    history,
    spans,
    growth,
    next,
    growthSentence,
    nextSentence,

    async keep(draft: HandMeasurementDraft): Promise<void> {
      await outbox.send(
        'hands.create',
        { params: { studentId: studentId.value }, body: draft },
        { what: `the hand of ${student.value?.name ?? 'a student'}` },
      )
      await reload()
      notices.say(`The hand of ${shortDay(draft.measuredOn)} is in the file.`)
    },

    async remove({ id }: HandMeasurement): Promise<void> {
      await call('hands.remove', { params: { handId: id } })
      await reload()
      notices.say('The measurement is out of the file.', {
        label: UNDO,
        run: async () => {
          await call('hands.restore', { params: { handId: id } })
          await reload()
        },
      })
    },
  }
}
