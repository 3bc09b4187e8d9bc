import { useLocalStorage } from '@vueuse/core'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'

/** Whether boards that can be turned stand on end: as somebody last said, before that as suits the family. */
export function useTurned(isUprightFirst: MaybeRefOrGetter<boolean>) {
  const turned = useLocalStorage<'lying' | 'upright' | 'auto'>('jadefell.board.turned', 'auto')
  const isUpright = computed(() =>
    turned.value === 'auto' ? toValue(isUprightFirst) : turned.value === 'upright',
  )
  return {
    isUpright,
    turn() {
      turned.value = isUpright.value ? 'lying' : 'upright'
    },
  }
}
