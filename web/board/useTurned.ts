import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { useAsStudio } from '../ui/asStudio'

/** Whether boards that can be turned stand on end: as somebody here or the studio said, else as suits the family. */
export function useTurned(isUprightFirst: MaybeRefOrGetter<boolean>) {
  const turned = useAsStudio('boardTurned')
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
