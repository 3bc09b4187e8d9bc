<template>
  <div v-if="patterns.student" class="marks">
    <MasteryField
      v-if="pattern"
      what="Pattern"
      :name="stepsName(pattern)"
      :who="patterns.student.name"
      :state="mastery.stateOf('pattern', pattern.id)"
      @mark="markPattern"
    />
    <MasteryField
      what="Position"
      :name="shortPositionName(cell.position)"
      :who="patterns.student.name"
      :state="mastery.stateOf('position', cell.position.id)"
      @mark="markPosition"
    />
  </div>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import type { MasteryState } from '#core'
import { stepsName } from '../../words/patterns'
import { shortPositionName } from '../../words/positions'
import { useShortcuts } from '../../ui/useShortcuts'
import MasteryField from './MasteryField.vue'
import { usePatterns } from './usePatterns'

/** How well the student in the lesson has the hand that is looked at. */
const patterns = usePatterns()
const { atlas, mastery } = patterns
const cell = computed(() => atlas.cell.value)
/** One finger alone is no pattern to learn. */
const pattern = computed(() =>
  cell.value.kind === 'placement' && cell.value.pattern?.steps.length ? cell.value.pattern : undefined,
)

function markPattern(state: MasteryState) {
  if (patterns.student && pattern.value) void mastery.mark('pattern', pattern.value.id, state)
}
function markPosition(state: MasteryState) {
  if (patterns.student) void mastery.mark('position', cell.value.position.id, state)
}
useShortcuts('Mastery', [
  { key: 'n', does: 'Pattern not met', run: () => markPattern('not_met') },
  { key: 'l', does: 'Pattern learning', run: () => markPattern('learning') },
  { key: 's', does: 'Pattern secure', run: () => markPattern('secure') },
  { key: 'N', does: 'Position not met', run: () => markPosition('not_met') },
  { key: 'L', does: 'Position learning', run: () => markPosition('learning') },
  { key: 'S', does: 'Position secure', run: () => markPosition('secure') },
])
</script>

<style scoped>
.marks {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 26px;
}
</style>
