import { computed, reactive, ref } from 'vue'
import {
  dayNumber,
  handMeasureFault,
  parseLength,
  spanDoubt,
  spanFault,
  type HandMeasure,
  type SpanOnDay,
  type Thumb,
} from '#core'
import type { HandMeasurementDraft } from '#contracts'
import { handFaultSentence } from '../../words/hand-fit'
import { studioDay } from '../../words/shown'

/** What is drawn of a hand to show how it is measured. */
export type HandField = 'span' | 'reach' | 'length' | 'fingertip' | 'thumb'

/** A field of the form, as typed. */
interface MeasureField {
  readonly id: string
  readonly label: string
  readonly measure: HandMeasure
  readonly drawing: HandField
}

const FINGERS = [1, 2, 3, 4] as const

/** Everything that can be measured, in the order it is asked for. */
export const MEASURE_FIELDS: readonly MeasureField[] = [
  { id: 'comfortable', label: 'Span 1 to 4, comfortable', measure: 'span', drawing: 'span' },
  { id: 'reached', label: 'Span 1 to 4, reached', measure: 'span', drawing: 'reach' },
  { id: 'fingertip', label: 'Fingertip width', measure: 'fingertipWidth', drawing: 'fingertip' },
  ...FINGERS.map((n) => ({
    id: `finger${n}`,
    label: `Finger ${n}`,
    measure: 'fingerLength' as const,
    drawing: 'length' as const,
  })),
]

/**
 * Measures of a hand as a teacher types them, in mm, cm or inches; only the comfortable span must be there. `before` is what was
 * measured of it until now.
 */
export function useHandForm(before: () => readonly SpanOnDay[] = () => []) {
  const texts = reactive<Record<string, string>>(Object.fromEntries(MEASURE_FIELDS.map(({ id }) => [id, ''])))
  const thumb = ref<Thumb>()
  const measuredOn = ref(studioDay())

  const valueOf = (id: string): number | undefined => {
    const parsed = texts[id]?.trim() ? parseLength(texts[id]) : undefined
    return parsed?.ok ? parsed.lengthMm : undefined
  }

  function faultOf({ id, measure }: MeasureField): string | undefined {
    if (!texts[id]?.trim()) return undefined
    const value = valueOf(id)
    if (value === undefined) return 'Type a length in mm, as in 64 or 6.4 cm.'
    const fault = handMeasureFault(measure, value)
    if (fault) return handFaultSentence(fault)
    if (id !== 'reached') return undefined
    const comfortable = valueOf('comfortable')
    const narrow = comfortable === undefined ? undefined : spanFault(comfortable, value)
    return narrow?.code === 'reach_below_comfort' ? handFaultSentence(narrow) : undefined
  }
  const faults = computed<Record<string, string | undefined>>(() =>
    Object.fromEntries(MEASURE_FIELDS.map((field) => [field.id, faultOf(field)])),
  )
  /** What of it a teacher would measure once more before it is kept; it may be kept all the same. */
  const doubt = computed(() => {
    const spanMm = valueOf('comfortable')
    return spanMm === undefined || faults.value['comfortable']
      ? undefined
      : spanDoubt(before(), { day: dayNumber(measuredOn.value), spanMm })
  })

  const draft = computed<HandMeasurementDraft | undefined>(() => {
    const comfortableSpanMm = valueOf('comfortable')
    if (comfortableSpanMm === undefined || Object.values(faults.value).some(Boolean)) return undefined
    const lengths = FINGERS.flatMap((n) => {
      const length = valueOf(`finger${n}`)
      return length === undefined ? [] : [[n, length] as const]
    })
    return {
      measuredOn: measuredOn.value,
      comfortableSpanMm,
      reachedSpanMm: valueOf('reached') ?? null,
      fingertipWidthMm: valueOf('fingertip') ?? null,
      fingerLengthsMm: lengths.length > 0 ? Object.fromEntries(lengths) : null,
      thumb: thumb.value ?? null,
    }
  })

  return {
    texts,
    thumb,
    measuredOn,
    faults,
    doubt,
    draft,
    clear() {
      for (const { id } of MEASURE_FIELDS) texts[id] = ''
      thumb.value = undefined
      measuredOn.value = studioDay()
    },
  }
}
