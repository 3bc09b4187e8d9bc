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
        <b>{{ practiceName(row) }}</b>
        <span class="soft">{{ practised(row, { hasTapes }) }}</span>
      </span>
    </PickList>
    <p v-if="rows.length === 0" class="soft none">Nothing is called that: try part of a name, or</p>
    <ElButton text @click="write">{{
      rows.length === 0 && text.trim() !== ''
        ? `Write “${text.trim()}” as an exercise of your own`
        : 'Write one of your own'
    }}</ElButton>
  </QuickDialog>
</template>

<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { ExerciseId } from '#core'
import PickList from '../../ui/PickList.vue'
import QuickDialog from '../../ui/QuickDialog.vue'
import { PART_NAMES, practiceName } from '../../words/plan'
import { practised } from '../../words/practice'
import { shown } from '../../words/shown'

/** Every exercise for this instrument that the week does not have. */
const props = defineProps<{ exercises: readonly ExerciseId[]; hasTapes: boolean }>()
const emit = defineEmits<{ pick: [id: ExerciseId]; write: [name: string] }>()
const open = defineModel<boolean>({ required: true })
const text = ref('')
watch(open, () => (text.value = ''))
/** By name first, then by what it is for, and how it is done. */
const rows = computed(() => {
  const sought = text.value.trim().toLowerCase()
  const begins = (id: ExerciseId) => practiceName(id).toLowerCase().startsWith(sought)
  const found = (of: (id: ExerciseId) => string) =>
    props.exercises.filter((id) => of(id).toLowerCase().includes(sought))
  return [
    ...new Set([
      ...found((id) => practiceName(id)).sort((a, b) => Number(begins(b)) - Number(begins(a))),
      ...found((id) => PART_NAMES[shown.exercises.of(id).part]),
      ...found((id) => practised(id, props)),
    ]),
  ]
})

function pick(id: ExerciseId) {
  open.value = false
  emit('pick', id)
}
function write() {
  open.value = false
  emit('write', rows.value.length === 0 ? text.value.trim() : '')
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
