import { computed, reactive, ref } from 'vue'
import { familyOf, isoDay, marksWithIds, tapesDue, type FamilyId } from '#core'
import type { Instrument } from '#contracts'
import type { DataTable } from '../../files/tables'
import { sheetOf } from '../../paper/sheet'
import { useStudio } from '../../stores/studio'
import { dueWords } from '../../words/due'
import { mm } from '../../words/numbers'
import { instrumentKind, shortMarkName } from '../../words/trade'
import { chartOf } from './tape-chart'

/** A page draws so many rows at once; the rest waits until it is asked for. */
export const SHOWN_AT_ONCE = 100

/** The instruments of the studio: which are looked for, which are chosen, and what is made of those. */
export function useCupboard() {
  const studio = useStudio()
  const today = isoDay(new Date())
  const text = ref('')
  const family = ref<FamilyId | 'all'>('all')
  const isDueOnly = ref(false)
  const limit = ref(SHOWN_AT_ONCE)
  const chosen = reactive(new Set<string>())

  const found = computed(() => {
    const words = text.value.toLowerCase().split(/\s+/).filter(Boolean)
    return (studio.instruments ?? []).filter((i) => {
      if (family.value !== 'all' && i.family !== family.value) return false
      if (isDueOnly.value && tapesDue(today, i).length === 0) return false
      const all = `${i.label} ${i.family} ${i.sizeId} ${i.holder?.name ?? ''}`.toLowerCase()
      return words.every((word) => all.includes(word))
    })
  })
  const shown = computed(() =>
    found.value.slice(0, limit.value).map((instrument) => ({
      instrument,
      tapes: tapesOf(instrument),
      due: tapesDue(today, instrument).map(dueWords)[0] ?? '',
    })),
  )
  const areAllChosen = computed(() => found.value.length > 0 && found.value.every((i) => chosen.has(i.id)))

  /** Strips of what is chosen and measured; an instrument without a length has none. */
  const sheets = computed(() =>
    (studio.instruments ?? []).flatMap((instrument) => {
      if (!chosen.has(instrument.id) || !instrument.measurement) return []
      const stringing = studio.stringingOf(instrument)
      const marks = chartOf(instrument, stringing)
      if (marks.length === 0) return []
      return [
        sheetOf({
          who: instrument.holder?.name,
          label: instrument.label,
          kind: instrumentKind(instrument.family, instrument.sizeId),
          stringing,
          marks,
        }),
      ]
    }),
  )

  return {
    text,
    family,
    isDueOnly,
    limit,
    found,
    shown,
    chosen,
    areAllChosen,
    sheets,
    choose(id: string) {
      if (!chosen.delete(id)) chosen.add(id)
    },
    chooseAll() {
      const ids = found.value.map((i) => i.id)
      if (areAllChosen.value) ids.forEach((id) => chosen.delete(id))
      else ids.forEach((id) => chosen.add(id))
    },
    table: (): DataTable => ({
      name: 'instruments',
      columns: ['label', 'family', 'size', 'length', 'tuning', 'measured on', 'tapes', 'with'],
      rows: found.value.map((i) => [
        i.label,
        i.family,
        i.sizeId,
        i.measurement ? Number(i.measurement.lengthMm.toFixed(2)) : null,
        i.tuning.join(' '),
        i.measurement?.measuredOn ?? null,
        tapesOf(i),
        i.holder?.name ?? null,
      ]),
    }),
  }
}

function tapesOf(instrument: Instrument): string {
  return instrument.tapes
    .map(({ markId, placeMm }) => {
      const [mark] = marksWithIds(familyOf(instrument.family), [markId])
      return `${mark ? shortMarkName(mark) : markId} at ${mm(placeMm)}`
    })
    .join(' · ')
}
