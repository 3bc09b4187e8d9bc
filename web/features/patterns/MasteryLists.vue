<template>
  <section class="card mastery" aria-label="Patterns and positions">
    <p class="eyebrow">What {{ student.name }} has learned, in the teacher’s word</p>
    <div class="columns">
      <div>
        <MasteryField
          v-for="pattern in patternItems"
          :key="pattern.id"
          :what="stepsName(pattern)"
          :name="patternName(family, pattern)"
          :who="student.name"
          :state="mastery.stateOf('pattern', pattern.id)"
          @mark="(state) => void mastery.mark('pattern', pattern.id, state)"
        />
      </div>
      <div>
        <MasteryField
          v-for="position in family.positions"
          :key="position.id"
          what=""
          :name="positionName(position)"
          :who="student.name"
          :state="mastery.stateOf('position', position.id)"
          @mark="(state) => void mastery.mark('position', position.id, state)"
        />
      </div>
    </div>
  </section>
</template>

<script setup lang="ts">
import { computed, toRef } from 'vue'
import { familyOf, patternsOf, WIDEST_STEP } from '#core'
import type { Student } from '#contracts'
import { useMasteryOf } from '../../stores/mastery'
import { patternName, stepsName } from '../../words/patterns'
import { positionName } from '../../words/positions'
import MasteryField from './MasteryField.vue'

/** Every pattern and position of a student's family, and how well they have each. */
const props = defineProps<{ student: Student }>()
const family = computed(() => familyOf(props.student.family))
const mastery = useMasteryOf(toRef(props, 'student'))
/** Augmented steps are met late; those a student has anything to do with are shown all the same. */
const patternItems = computed(() =>
  patternsOf(family.value).filter(
    (p) => !p.steps.includes(WIDEST_STEP) || mastery.stateOf('pattern', p.id) !== 'not_met',
  ),
)
</script>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 8px 40px;
  margin-top: 8px;
}

.columns > div {
  display: grid;
  align-content: start;
  gap: 6px;
}

@media (width <= 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
