import { computed, shallowRef, watch, type ComputedRef, type Ref } from 'vue'
import { sum } from 'd3-array'
import type { FamilyId } from '#core'
import type { Instrument } from '#contracts'
import { useStudio, type CupboardQuery } from './studio'

/** More of one size than these are found by a search, not in a list. */
const OF_A_SIZE = 20

export interface SizesQuery extends Pick<CupboardQuery, 'holder' | 'q'> {
  readonly family: FamilyId
  readonly sizeIds: readonly string[]
}

/**
 * Instruments of these sizes of a family, up to twenty of each, read anew when something is saved; undefined until they have
 * come. However large the cupboard is, no more than these are read.
 */
export function useInstrumentsOfSizes(query: Ref<SizesQuery | undefined>): {
  readonly rows: ComputedRef<readonly Instrument[] | undefined>
  /** How many there are beyond those. */
  readonly more: ComputedRef<number>
} {
  const studio = useStudio()
  const found = shallowRef<{ readonly ids: readonly string[]; readonly total: number }>()
  let question = 0
  watch(
    // What is asked, not the object that says so: reading the answer may make that anew.
    [() => JSON.stringify(query.value), () => studio.saves],
    async () => {
      const of = ++question
      if (!query.value) return
      const { sizeIds, ...rest } = query.value
      const pages = await Promise.all(
        sizeIds.map((sizeId) => studio.findInstruments({ ...rest, sizeId, limit: OF_A_SIZE })),
      )
      if (of !== question) return
      found.value = { ids: pages.flatMap(({ rows }) => rows), total: sum(pages, ({ total }) => total) }
    },
    { immediate: true },
  )
  const rows = computed(() => found.value?.ids.flatMap((id) => studio.instrument(id) ?? []))
  return { rows, more: computed(() => (found.value?.total ?? 0) - (found.value?.ids.length ?? 0)) }
}
