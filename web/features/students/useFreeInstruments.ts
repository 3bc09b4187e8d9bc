import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import { familyOf, fitOfInstrument, knownSystem, sizesToLend, type SizeFit } from '#core'
import type { Instrument, Student } from '#contracts'
import { useStudio } from '../../stores/studio'
import { studioStringing } from '../../stores/stringing'
import { useInstrumentsOfSizes } from '../../stores/useInstrumentsOfSizes'
import { useSettled } from '../../ui/useSettled'

/** An instrument that may be lent, and how it meets the hand; no fit where nobody has measured the hand. */
export interface FreeInstrument {
  readonly instrument: Instrument
  readonly fit: SizeFit | undefined
}

const MOST_FOUND = 40
const BEST_FIRST = ['comfortable', 'reach_back', 'thumb_or_pivot', 'too_big']

/**
 * The free instruments of a student's family: those of the sizes that the hand can hold, or what is searched for; what fits
 * best first, and of those the largest.
 */
export function useFreeInstruments(student: Ref<Student | undefined>, isWanted: Ref<boolean>) {
  const studio = useStudio()
  const text = ref('')
  const asked = useSettled(text)
  const isSearching = computed(() => asked.value.trim() !== '')
  const likely = useInstrumentsOfSizes(
    computed(() => {
      const of = student.value
      if (!of || !isWanted.value) return undefined
      const family = familyOf(of.family)
      const system = knownSystem(studio.systemOf(undefined, of))
      const sizeIds = of.hand ? sizesToLend(family, system, of.hand) : family.sizes.map(({ id }) => id)
      return { family: of.family, holder: 'none' as const, sizeIds }
    }),
  )
  const foundIds = shallowRef<readonly string[]>()
  const foundMore = ref(0)
  /** Called just as was typed, and with somebody. */
  const lent = shallowRef<Instrument>()
  /** What the found ones were found for. */
  const foundFor = ref('')
  watch([asked, () => studio.saves], async ([q]) => {
    const family = student.value?.family
    if (q.trim() === '' || family === undefined) return
    const [{ rows, total }, all] = await Promise.all([
      studio.findInstruments({ q, family, holder: 'none', limit: MOST_FOUND }),
      studio.findInstruments({ q, holder: 'some', limit: MOST_FOUND }),
    ])
    if (q !== asked.value) return
    lent.value = all.rows
      .flatMap((id) => studio.instrument(id) ?? [])
      .find(({ label }) => label.toLowerCase() === q.trim().toLowerCase())
    foundFor.value = q
    foundIds.value = rows
    foundMore.value = total - rows.length
  })

  /** What is called just as was typed comes before everything that the words are found in. */
  const called = ({ instrument }: FreeInstrument) =>
    isSearching.value && instrument.label.toLowerCase() === asked.value.trim().toLowerCase() ? 0 : 1

  const rows = computed<readonly FreeInstrument[] | undefined>(() => {
    const of = student.value
    // Who asks for that one is not handed another that has an 8 somewhere.
    if (isSearching.value && lent.value) return []
    const found = isSearching.value
      ? foundIds.value?.flatMap((id) => studio.instrument(id) ?? [])
      : likely.rows.value
    return found
      ?.filter((instrument) => instrument.holder === null)
      .map((instrument) => ({
        instrument,
        fit: of?.hand ? fitOfInstrument(studioStringing(instrument), of.hand) : undefined,
      }))
      .sort((a, b) => called(a) - called(b) || rankOf(a) - rankOf(b) || widthOf(b) - widthOf(a))
  })
  return {
    text,
    isSearching,
    /** Whether the rows are those of what is typed. */
    isFound: computed(() => text.value.trim() === '' || foundFor.value === text.value),
    rows,
    lent: computed(() => (isSearching.value ? lent.value : undefined)),
    more: computed(() => (isSearching.value ? foundMore.value : likely.more.value)),
  }
}

function rankOf({ fit }: FreeInstrument): number {
  return fit ? BEST_FIRST.indexOf(fit.fit) : 0
}
function widthOf({ fit }: FreeInstrument): number {
  return fit?.frames[0]?.widthMm ?? 0
}
