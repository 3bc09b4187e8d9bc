import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { familyOf, marksWithIds, sizeCell, tapeCell, tapesDue, type FamilyId, type KeptBesides } from '#core'
import type { Instrument } from '#contracts'
import type { DataTable } from '../../files/tables'
import { sheetOf } from '../../paper/sheet'
import { useSettings } from '../../stores/settings'
import { useStudio, type CupboardQuery } from '../../stores/studio'
import { studioStringing } from '../../stores/stringing'
import { useList } from '../../stores/useList'
import { useRowSort } from '../../ui/useRowKeys'
import { useSettled } from '../../ui/useSettled'
import { dueWords } from '../../words/due'
import { mm } from '../../words/numbers'
import { instrumentKind, shortMarkName } from '../../words/trade'
import { chartOf, marksWithoutPlace } from './tape-chart'
import { studioDay } from '../../words/shown'

/** The instruments of the studio: which are looked for, which are chosen, and what is made of those. */
export function useCupboard() {
  const studio = useStudio()
  const settings = useSettings()
  const today = studioDay()
  const text = ref('')
  const asked = useSettled(text)
  const family = ref<FamilyId | 'all'>('all')
  const isDueOnly = ref(false)
  /** Those that were taken out, in place of those that are in it. */
  const isOut = ref(false)
  const { sort, sortBy } = useRowSort<'label' | 'kind' | 'length' | 'holder'>('label')
  const query = computed<CupboardQuery>(() => ({
    q: asked.value,
    sort: sort.value.key,
    direction: sort.value.direction,
    ...(family.value === 'all' ? {} : { family: family.value }),
    ...(isDueOnly.value && !isOut.value ? { dueOn: today } : {}),
    ...(isOut.value ? { out: 'yes' as const } : {}),
  }))
  const list = useList(query, studio.findInstruments)
  watch(() => studio.saves, list.reload)

  const chosen = reactive(new Set<string>())
  /** All that are found, once they were asked for; another search asks anew. */
  const everyId = shallowRef<readonly string[]>()
  watch([query, () => studio.saves], () => (everyId.value = undefined))
  const areAllChosen = computed(
    () => (everyId.value?.length ?? 0) > 0 && everyId.value!.every((id) => chosen.has(id)),
  )

  /** Strips of what is chosen and measured; an instrument without a length has none. */
  const sheets = computed(() =>
    [...chosen].flatMap((id) => {
      const instrument = studio.instrument(id)
      if (!instrument?.measurement) return []
      const stringing = studioStringing(instrument)
      const marks = chartOf(instrument, stringing)
      if (marks.length === 0) return []
      return [
        sheetOf({
          who: instrument.holder?.name,
          label: instrument.label,
          kind: instrumentKind(instrument.family, instrument.sizeId),
          stringing,
          marks,
          withoutPlace: marksWithoutPlace(instrument, stringing),
        }),
      ]
    }),
  )

  return {
    text,
    family,
    isDueOnly,
    isOut,
    sort,
    sortBy,
    query,
    list,
    chosen,
    areAllChosen,
    sheets,
    tapesOf,
    dueOf: (instrument: Instrument) => tapesDue(today, instrument, settings.intervals).map(dueWords)[0] ?? '',
    choose(id: string) {
      if (!chosen.delete(id)) chosen.add(id)
    },
    async chooseAll() {
      if (areAllChosen.value) return everyId.value!.forEach((id) => chosen.delete(id))
      const of = query.value
      const ids = await studio.allInstruments(of)
      if (of !== query.value) return
      everyId.value = ids
      ids.forEach((id) => chosen.add(id))
    },
    async table(): Promise<DataTable> {
      const ids = await studio.allInstruments(query.value)
      return {
        name: 'instruments',
        columns: [
          'label',
          'family',
          'size',
          'length',
          'tuning',
          'measured on',
          'tapes',
          'tape width',
          'laid on',
          'with',
          'kept besides',
        ],
        rows: ids
          .flatMap((id) => studio.instrument(id) ?? [])
          .map((i) => [
            i.label,
            i.family,
            sizeCell(i.sizeId),
            i.measurement ? Number(i.measurement.lengthMm.toFixed(2)) : null,
            i.tuning.join(' '),
            i.measurement?.measuredOn ?? null,
            tapeCells(i),
            i.tapes.length > 0 ? (i.tapeSet?.tapeWidthMm ?? null) : null,
            i.tapes.length > 0 ? (i.tapeSet?.laidOn ?? null) : null,
            i.holder?.name ?? null,
            besidesCell(i),
          ]),
      }
    },
  }
}

function tapesOf(instrument: Instrument): string {
  return instrument.tapes
    .map(({ markId, placeMm }) => `${markName(instrument, markId)} at ${mm(placeMm)}`)
    .join(' · ')
}

/** As the table has them, to be read back. */
function tapeCells(instrument: Instrument): string {
  return instrument.tapes.map((tape) => tapeCell(markName(instrument, tape.markId), tape)).join(' · ')
}

function markName({ family }: Instrument, markId: string): string {
  const [mark] = marksWithIds(familyOf(family), [markId])
  return mark ? shortMarkName(mark) : markId
}

/** What no office has a column for, to be read back; nothing where there is nothing. */
function besidesCell({ measurement, pressing, warmHands, ringFinds }: Instrument): string | null {
  const kept: KeptBesides = {
    ...(measurement && measurement.method !== 'bridge' ? { method: measurement.method } : {}),
    ...(measurement?.stringLengthsMm ? { stringLengthsMm: measurement.stringLengthsMm } : {}),
    ...(pressing ? { pressing } : {}),
    ...(warmHands ? { warmHands } : {}),
    ...(ringFinds.length > 0
      ? {
          rings: ringFinds.map(({ string, note, system, placeMm, foundOn }) => ({
            string,
            note,
            system,
            placeMm,
            foundOn,
          })),
        }
      : {}),
  }
  return Object.keys(kept).length > 0 ? JSON.stringify(kept) : null
}
