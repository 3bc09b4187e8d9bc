<template>
  <div class="mastery">
    <span class="what">{{ what }} <span class="soft">{{ name }}</span></span>
    <ElSegmented
      :model-value="state"
      :options="OPTIONS"
      size="small"
      :aria-label="`${what} ${name}, how well ${who} has it`"
      @update:model-value="(value: unknown) => emit('mark', value as MasteryState)"
    />
  </div>
</template>

<script setup lang="ts">
import { MASTERY_STATES, type MasteryState } from '#core'
import { STATE_NAMES } from '../../words/mastery'

const OPTIONS = MASTERY_STATES.map((value) => ({ value, label: STATE_NAMES[value] }))

/** The teacher's word on one pattern or position of a student. */
defineProps<{ what: string; name: string; who: string; state: MasteryState }>()
const emit = defineEmits<{ mark: [state: MasteryState] }>()
</script>

<style scoped>
.mastery {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 4px 12px;
}

.what {
  font-weight: 600;
}

.what .soft {
  font-weight: 400;
}
</style>
