<template>
  <QuickDialog v-model="open" label="Add an exercise">
    <PickList
      id="exercise"
      v-slot="{ row }"
      v-model="text"
      label="Find an exercise"
      list-label="Exercises"
      placeholder="Which? Part of a name…"
      :rows="rows"
      :key-of="(id) => id"
      @pick="pick"
    >
      <span class="row">
        <b>{{ PRACTICE_NAMES[row] }}</b>
        <span class="soft">{{ practised(row, { hasTapes }) }}</span>
      </span>
    </PickList>
    <p v-if="rows.length === 0" class="soft none">Nothing is called that: try part of a name.</p>
  </QuickDialog>
</template>

<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { PRACTICE, type PracticeId } from '#core'
import PickList from '../../ui/PickList.vue'
import QuickDialog from '../../ui/QuickDialog.vue'
import { PART_NAMES, PRACTICE_NAMES } from '../../words/plan'
import { practised } from '../../words/practice'

/** Every exercise for this instrument that the week does not have. */
const props = defineProps<{ exercises: readonly PracticeId[]; hasTapes: boolean }>()
const emit = defineEmits<{ pick: [id: PracticeId] }>()
const open = defineModel<boolean>({ required: true })
const text = ref('')
watch(open, () => (text.value = ''))
/** By name first, then by what it is for, and how it is done. */
const rows = computed(() => {
  const sought = text.value.trim().toLowerCase()
  const begins = (id: PracticeId) => PRACTICE_NAMES[id].toLowerCase().startsWith(sought)
  const found = (of: (id: PracticeId) => string) =>
    props.exercises.filter((id) => of(id).toLowerCase().includes(sought))
  return [
    ...new Set([
      ...found((id) => PRACTICE_NAMES[id]).sort((a, b) => Number(begins(b)) - Number(begins(a))),
      ...found((id) => PART_NAMES[PRACTICE[id].part]),
      ...found((id) => practised(id, props)),
    ]),
  ]
})

function pick(id: PracticeId) {
  open.value = false
  emit('pick', id)
}
</script>

<style scoped>
.row {
  display: grid;
  padding: 5px 8px;
}

.row .soft {
  font-size: 14px;
}

.none {
  padding-top: 12px;
}
</style>
