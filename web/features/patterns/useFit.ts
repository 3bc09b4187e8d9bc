import { computed, type Ref } from 'vue'
import { fitOfInstrument, sizesToLend, typicalStringing, type SizeFit, type Stringing } from '#core'
import type { HandMeasurement, Instrument } from '#contracts'
import { studioStringing } from '../../stores/stringing'
import { useInstrumentsOfSizes } from '../../stores/useInstrumentsOfSizes'
import { length } from '../../words/numbers'
import { instrumentKind, sizeName } from '../../words/trade'

/** A size or an instrument against one hand. */
export interface FitRow {
  readonly id: string
  readonly name: string
  readonly about: string
  readonly fit: SizeFit
  readonly isOwn: boolean
  readonly instrumentId?: string
}

/** A size in hand, with the strings it has. */
export interface OwnSize {
  readonly sizeId: string
  readonly stringing: Stringing
}

/** Which sizes suit a hand: of the family and in the system of the one in hand. */
export function useFit(hand: Ref<HandMeasurement | null | undefined>, own: Ref<OwnSize>) {
  return computed<FitRow[]>(() => {
    const { sizeId, stringing } = own.value
    const { family, system } = stringing
    return family.sizes.flatMap(({ id, typicalLengthMm }) => {
      const isOwn = id === sizeId
      const isMeasured = isOwn && stringing.isMeasured
      const about = isMeasured
        ? `${length(stringing.lengthMm)}, measured`
        : `${length(typicalLengthMm, 0)}, from memory`
      if (!hand.value) return []
      const fit = fitOfInstrument(isMeasured ? stringing : typicalStringing(family, id, system), hand.value)
      return [{ id, name: sizeName(id), about, fit, isOwn }]
    })
  })
}

/** The instruments of the studio that can be played with a hand, the largest first, and how many more there are. */
export function useFittingInstruments(hand: Ref<HandMeasurement | null | undefined>, own: Ref<OwnSize>) {
  const query = computed(() => {
    const { family, system } = own.value.stringing
    return hand.value ? { family: family.id, sizeIds: sizesToLend(family, system, hand.value) } : undefined
  })
  const { rows, more } = useInstrumentsOfSizes(query)
  const instruments = computed<FitRow[]>(() =>
    (rows.value ?? [])
      .flatMap((i) => {
        const fit = hand.value && fitOfInstrument(studioStringing(i), hand.value)
        return fit && fit.fit !== 'too_big' ? [rowOf(i, fit)] : []
      })
      .sort((a, b) => b.fit.frames[0]!.widthMm - a.fit.frames[0]!.widthMm),
  )
  return { instruments, more }
}

function rowOf(i: Instrument, fit: SizeFit): FitRow {
  const measured = i.measurement ? length(i.measurement.lengthMm) : 'not measured, typical length'
  const where = i.holder ? `with ${i.holder.name}` : 'in the cupboard'
  return {
    id: i.id,
    name: i.label,
    about: `${instrumentKind(i.family, i.sizeId)}, ${measured}, ${where}`,
    fit,
    isOwn: false,
    instrumentId: i.id,
  }
}
