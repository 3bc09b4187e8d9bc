import { computed, type Ref } from 'vue'
import { familyOf, fitOfLength, type Family, type SizeFit } from '#core'
import type { HandMeasurement, Instrument } from '#contracts'
import { mm } from '../../words/numbers'
import { instrumentKind, sizeName } from '../../words/trade'
import type { FitRow } from './FitTable.vue'

/** Which sizes, and which instruments of the cupboard, suit a hand. */
export function useFit(
  family: Ref<Family>,
  hand: Ref<HandMeasurement | null | undefined>,
  /** The size in hand, with its length where that was measured. */
  own: Ref<{ readonly sizeId: string; readonly lengthMm: number | undefined } | undefined>,
  cupboard: Ref<readonly Instrument[]>,
) {
  const fitOf = (of: Family, lengthMm: number) =>
    hand.value ? fitOfLength(of, lengthMm, hand.value) : undefined

  const sizes = computed<FitRow[]>(() =>
    family.value.sizes.flatMap(({ id, typicalLengthMm }) => {
      const isOwn = id === own.value?.sizeId
      const measuredMm = isOwn ? own.value?.lengthMm : undefined
      const fit = fitOf(family.value, measuredMm ?? typicalLengthMm)
      const about =
        measuredMm === undefined
          ? `${typicalLengthMm.toFixed(0)} mm, from memory`
          : `${mm(measuredMm)} mm, measured`
      return fit ? [{ id, name: sizeName(id), about, fit, isOwn }] : []
    }),
  )

  /** Of the same family, those that can be played, the largest first. */
  const instruments = computed<FitRow[]>(() =>
    cupboard.value
      .filter((i) => i.family === family.value.id)
      .flatMap((i) => {
        const fit = fitOf(familyOf(i.family), lengthOf(i))
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

function lengthOf({ family, sizeId, measurement }: Instrument): number {
  const typical = familyOf(family).sizes.find((s) => s.id === sizeId)?.typicalLengthMm
  return measurement?.lengthMm ?? typical ?? familyOf(family).board.stringLengthMm
}
