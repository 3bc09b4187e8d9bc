import { useDocumentVisibility } from '@vueuse/core'
import { computed, onScopeDispose, ref, watch, type ComputedRef } from 'vue'
import { studioDay } from '../words/shown'

const LOOKED_EVERY_MS = 30_000

/** Noon of the studio’s day: a page that was left open over night wakes to the new one. */
export function useToday(): ComputedRef<Date> {
  const now = ref(new Date())
  const look = () => (now.value = new Date())
  const timer = setInterval(look, LOOKED_EVERY_MS)
  onScopeDispose(() => clearInterval(timer))
  // A tablet that slept looks before anybody does.
  watch(useDocumentVisibility(), look)
  const day = computed(() => studioDay(now.value))
  return computed(() => new Date(`${day.value}T12:00:00`))
}
