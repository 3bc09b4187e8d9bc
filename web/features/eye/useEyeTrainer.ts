import { useLocalStorage } from '@vueuse/core'
import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import {
  hiddenCasesFor,
  playCase,
  type CaseId,
  type CasePlayed,
  type PlayerLevel,
  type RandomSource,
  type Stringing,
} from '#core'

/** How often one kind of fault was hidden, and named rightly by the teacher and by the tool. */
export interface EyeScore {
  readonly asked: number
  readonly right: number
  readonly tool: number
}
export type EyeScores = Partial<Record<CaseId, EyeScore>>

/**
 * A hand with a hidden fault to be named, one after the other, and a running score by kind of fault that stays in this browser
 * for whoever is signed in.
 */
export function useEyeTrainer(
  stringing: Ref<Stringing>,
  level: Ref<PlayerLevel>,
  userId: string,
  random: RandomSource = Math.random,
) {
  const scores = useLocalStorage<EyeScores>(`jadefell.eye.${userId}`, {})
  const options = computed(() => hiddenCasesFor(stringing.value.family.id))
  const hidden = shallowRef<CasePlayed>()
  const answer = ref<CaseId>()

  function next() {
    const ids = options.value
    const id = ids[Math.floor(random() * ids.length)]!
    hidden.value = playCase(id, Math.floor(random() * 1e9), stringing.value, level.value)
    answer.value = undefined
  }
  watch([stringing, level], next, { immediate: true })

  return {
    options,
    hidden,
    answer,
    scores,
    next,
    /** The first word counts. */
    name(id: CaseId) {
      const played = hidden.value
      if (!played || answer.value !== undefined) return
      answer.value = id
      const before = scores.value[played.id] ?? { asked: 0, right: 0, tool: 0 }
      scores.value = {
        ...scores.value,
        [played.id]: {
          asked: before.asked + 1,
          right: before.right + (id === played.id ? 1 : 0),
          tool: before.tool + (played.isNamed ? 1 : 0),
        },
      }
    },
    total: computed(() =>
      Object.values(scores.value).reduce(
        (sum, one) => ({
          asked: sum.asked + one.asked,
          right: sum.right + one.right,
          tool: sum.tool + one.tool,
        }),
        { asked: 0, right: 0, tool: 0 },
      ),
    ),
    forgetScores: () => (scores.value = {}),
  }
}
