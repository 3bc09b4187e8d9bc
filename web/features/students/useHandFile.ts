import { computed, ref, watch, type Ref } from 'vue'
import { familyOf, growthOf, nextSize, whenSpanIs, type Growth } from '#core'
import type { HandMeasurement, HandMeasurementDraft, Student } from '#contracts'
import { call } from '../../api/client'
import { saveSurely } from '../../api/saving'
import { useNotices } from '../../stores/notices'
import { useStudio } from '../../stores/studio'
import { mm } from '../../words/numbers'
import { whenSentence } from '../../words/patterns'
import { sizeName } from '../../words/trade'
import { isoDay, shortDay } from '../../words/dates'

const MS_PER_DAY = 86_400_000

/** Days since 1970 of an ISO day, and back. */
export const dayNumber = (iso: string) => Date.parse(`${iso}T00:00:00Z`) / MS_PER_DAY
export const dayOf = (day: number) => new Date(day * MS_PER_DAY).toISOString().slice(0, 10)

/** A student's hand over time: what was measured, how it grows, and what can be done with a measurement. */
export function useHandFile(studentId: Ref<string>, student: Ref<Student | undefined>) {
  const studio = useStudio()
  const notices = useNotices()
  const history = ref<HandMeasurement[]>()

  watch(
    studentId,
    async (id) => {
      history.value = undefined
      const kept = await call('hands.list', { params: { studentId: id } })
      if (studentId.value === id) history.value = kept
    },
    { immediate: true },
  )

  async function reload() {
    const [kept] = await Promise.all([
      call('hands.list', { params: { studentId: studentId.value } }),
      studio.loadStudent(studentId.value),
    ])
    history.value = kept
  }

  const growth = computed<Growth | undefined>(
    () =>
      history.value &&
      growthOf(
        [...history.value].reverse().map(({ measuredOn, comfortableSpanMm }) => ({
          day: dayNumber(measuredOn),
          spanMm: comfortableSpanMm,
        })),
      ),
  )
  /** The size above the one in hand, and the span it asks for. */
  const next = computed(() => {
    const instrument = student.value?.instrument
    return instrument ? nextSize(familyOf(instrument.family), instrument.sizeId) : undefined
  })

  const growthSentence = computed(() => {
    if (!growth.value) return ''
    if (growth.value.outcome === 'too_few')
      return `Too few measurements to tell the growth: ${growth.value.count} of ${growth.value.needed}. Measure again in about half a year.`
    if (growth.value.outcome === 'too_close')
      return 'The measurements lie too close together to tell the growth: half a year apart at least.'
    const { mmPerYear, intervalMmPerYear } = growth.value
    const [low, high] = intervalMmPerYear.map(mm)
    return `The span grows ${mm(mmPerYear)} mm a year (four times in five ${low} to ${high}).`
  })
  const nextSentence = computed(() => {
    if (growth.value?.outcome !== 'line') return ''
    if (!student.value?.instrument) return 'Lend an instrument to see when the next size will fit.'
    if (!next.value) return 'The instrument is full size.'
    const when = whenSpanIs(growth.value, next.value.spanMm, dayNumber(isoDay(new Date())))
    return whenSentence(when, `${sizeName(next.value.sizeId)} (frame ${mm(next.value.spanMm)} mm)`, dayOf)
  })

  return {
    history,
    growth,
    next,
    growthSentence,
    nextSentence,

    async keep(draft: HandMeasurementDraft): Promise<void> {
      await saveSurely('hands.create', { params: { studentId: studentId.value }, body: draft })
      await reload()
      notices.say(`The hand of ${shortDay(draft.measuredOn)} is in the file.`)
    },

    async remove({ id }: HandMeasurement): Promise<void> {
      await call('hands.remove', { params: { handId: id } })
      await reload()
      notices.say('The measurement is out of the file.', {
        label: 'Undo',
        run: async () => {
          await call('hands.restore', { params: { handId: id } })
          await reload()
        },
      })
    },
  }
}
