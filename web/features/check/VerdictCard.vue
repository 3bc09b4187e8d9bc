<template>
  <section class="card verdict" aria-label="Verdict">
    <div class="said" aria-live="polite">
      <p class="eyebrow">{{ kept ? `Kept verdict, ${kept}` : 'Verdict' }}</p>
      <h2>{{ verdictSentence(verdict) }}</h2>
      <p class="soft">{{ [evidence(noteCount), certainty(verdict)].filter(Boolean).join(', ') }}</p>
      <p v-for="sentence in besideSentences(verdict)" :key="sentence" class="beside">{{ sentence }}</p>
      <p v-if="steadiness(verdict, toleranceCents)" class="soft">{{ steadiness(verdict, toleranceCents) }}</p>
      <p v-if="alternativeSentence(verdict)">{{ alternativeSentence(verdict) }}</p>
    </div>
    <slot />
    <div v-if="advice" class="advice">
      <p v-if="setup.seen" class="seen">{{ setup.seen }}</p>
      <p v-if="setup.lookFirst && student" class="look">
        <RouterLink :to="{ name: 'setup' }">Look first at: {{ setup.lookFirst }}</RouterLink
        ><KeyHint of="s" />
      </p>
      <p class="eyebrow">Check first</p>
      <p>{{ advice.checkFirst.join(' ') }}</p>
      <template v-if="!student?.pains.length">
        <p class="then">
          <span class="eyebrow">Then try</span>
          <PlanLink v-if="student" :student-id="student.id" />
        </p>
        <p>{{ advice.thenTry.join(' ') }}</p>
      </template>
      <p class="eyebrow">Not this</p>
      <p>{{ advice.notThis }}</p>
      <p class="soft stop">{{ STOP_AT_PAIN }}</p>
    </div>
    <slot name="foot" />
  </section>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import type { FamilyId } from '#core'
import type { KeptVerdict, Student } from '#contracts'
import { useSettings } from '../../stores/settings'
import KeyHint from '../../ui/KeyHint.vue'
import PlanLink from './PlanLink.vue'
import { adviceOn, setupEvidence, STOP_AT_PAIN } from '../../words/advice'
import {
  alternativeSentence,
  besideSentences,
  certainty,
  evidence,
  steadiness,
  verdictSentence,
} from '../../words/verdict'

const props = defineProps<{
  verdict: KeptVerdict
  family: FamilyId
  noteCount: number
  toleranceCents: number
  /** Whose hand it is; missing for a walk-in. */
  student?: Student | undefined
  /** Where it was heard, as in “A string”, once it is kept. */
  kept?: string | undefined
}>()
const settings = useSettings()
const advice = computed(() => {
  const schools = settings.schoolsOf(props.student)
  const tapes = props.student?.instrument?.tapes
  const hasTapes = tapes ? tapes.length > 0 : schools.tapes !== 'none'
  return adviceOn(props.verdict, { family: props.family, schools, hasTapes })
})
const setup = computed(() =>
  setupEvidence(props.verdict, props.family, props.student?.setup ?? null, settings.arrangement),
)
</script>

<style scoped>
.then {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}

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

.beside {
  font-weight: 600;
}

.seen {
  font-weight: 600;
}

.look {
  display: flex;
  gap: 10px;
  align-items: center;
  font-weight: 600;
}

.advice .eyebrow:not(:first-child) {
  margin-top: 5px;
}
</style>
