<template>
  <section class="card verdict" aria-label="Verdict">
    <div class="said" aria-live="polite">
      <p class="eyebrow">{{ kept ? `Kept verdict, ${kept}` : 'Verdict' }}</p>
      <h2>{{ verdictSentence(verdict) }}</h2>
      <p class="soft">{{ [evidence(noteCount), certainty(verdict)].filter(Boolean).join(', ') }}</p>
      <p v-if="alternativeSentence(verdict)">{{ alternativeSentence(verdict) }}</p>
    </div>
    <div v-if="advice" class="advice">
      <p class="eyebrow">Check first</p>
      <p>{{ advice.checkFirst.join(' ') }}</p>
      <p class="eyebrow">Then try</p>
      <p>{{ advice.thenTry.join(' ') }}</p>
      <p class="eyebrow">Not this</p>
      <p class="soft">{{ advice.notThis }}</p>
    </div>
  </section>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import type { FamilyId } from '#core'
import type { KeptVerdict } from '#contracts'
import { adviceOn, alternativeSentence, certainty, evidence, verdictSentence } from '../../words/verdict'

const props = defineProps<{
  verdict: KeptVerdict
  family: FamilyId
  noteCount: number
  /** Where it was heard, as in “A string”, once it is kept. */
  kept?: string | undefined
}>()
const advice = computed(() => adviceOn(props.verdict, props.family))
</script>

<style scoped>
.verdict {
  display: grid;
  align-content: start;
  gap: 9px;
}

.said {
  display: grid;
  gap: 6px;
}

h2 {
  font-size: 22px;
}

.advice {
  display: grid;
  gap: 3px;
  padding-top: 10px;
  border-top: 1px solid var(--line);
  line-height: 1.32;
  font-size: 15px;
}

.advice .eyebrow:not(:first-child) {
  margin-top: 5px;
}
</style>
