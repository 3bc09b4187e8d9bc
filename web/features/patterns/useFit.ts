import { computed, type Ref } from 'vue'
import { fitOfInstrument, typicalStringing, type SizeFit, type Stringing } from '#core'
import type { HandMeasurement, Instrument } from '#contracts'
import { useStudio } from '../../stores/studio'
import { useAllInstruments } from '../../stores/useAllInstruments'
import { mm } from '../../words/numbers'
import { instrumentKind, sizeName } from '../../words/trade'
import type { FitRow } from './FitTable.vue'

/** A size in hand, with the strings it has. */
export interface OwnSize {
  readonly sizeId: string
  readonly stringing: Stringing
}

/** Which sizes, and which instruments of the cupboard, suit a hand: of the family and in the system of the one in hand. */
export function useFit(hand: Ref<HandMeasurement | null | undefined>, own: Ref<OwnSize>) {
  const studio = useStudio()
  const family = computed(() => own.value.stringing.family)
  const cupboard = useAllInstruments(computed(() => ({ family: family.value.id })))
  const fitOf = (stringing: Stringing) => hand.value && fitOfInstrument(stringing, hand.value)
  const sizes = computed<FitRow[]>(() =>
    family.value.sizes.flatMap(({ id, typicalLengthMm }) => {
      const { sizeId, stringing } = own.value
      const isOwn = id === sizeId
      const isMeasured = isOwn && stringing.isMeasured
      const fit = fitOf(isMeasured ? stringing : typicalStringing(family.value, id, stringing.system))
      const about = isMeasured
        ? `${mm(stringing.lengthMm)} mm, measured`
        : `${typicalLengthMm.toFixed(0)} mm, from memory`
      return fit ? [{ id, name: sizeName(id), about, fit, isOwn }] : []
    }),
  )
  /** Of the same family, those that can be played, the largest first. */
  const instruments = computed<FitRow[]>(() =>
    (cupboard.value ?? [])
      .flatMap((i) => {
        const fit = fitOf(studio.stringingOf(i))
        return fit && fit.fit !== 'too_big' ? [rowOf(i, fit)] : []
      })
      .sort((a, b) => b.fit.frames[0]!.widthMm - a.fit.frames[0]!.widthMm),
  )
  return { sizes, instruments }
}

function rowOf(i: Instrument, fit: SizeFit): FitRow {
  const length = i.measurement ? `${mm(i.measurement.lengthMm)} mm` : 'not measured, typical length'
  const where = i.holder ? `with ${i.holder.name}` : 'in the cupboard'
  return {
    id: i.id,
    name: i.label,
    about: `${instrumentKind(i.family, i.sizeId)}, ${length}, ${where}`,
    fit,
    isOwn: false,
    instrumentId: i.id,
  }
}
