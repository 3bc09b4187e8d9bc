<template>
  <QuickDialog v-model="open" label="What exactly was practised">
    <h2 tabindex="-1" autofocus>What exactly was practised</h2>
    <FieldRow label="Day">
      <PlainSelect
        v-model="at"
        label="Day"
        :options="
          log.days.value.map(({ day }, value) => ({ value, label: `${longDayName(day)} ${dayNumeral(day)}` }))
        "
      />
    </FieldRow>
    <form v-if="day" @submit.prevent="save">
      <table class="ledger">
        <thead>
          <tr>
            <th scope="col">Exercise</th>
            <th scope="col">Minutes</th>
            <th scope="col">Times</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.exerciseId">
            <th scope="row">{{ practiceName(row.exerciseId) }}</th>
            <td>
              <input
                v-model="row.minutes"
                inputmode="numeric"
                :aria-label="`Minutes of ${practiceName(row.exerciseId)}`"
              />
            </td>
            <td>
              <input
                v-model="row.times"
                inputmode="numeric"
                :aria-label="`Times of ${practiceName(row.exerciseId)}`"
              />
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <p class="soft">An empty line was not practised.</p>
      <ElButton type="primary" native-type="submit">Write it down</ElButton>
    </form>
  </QuickDialog>
</template>

<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import type { ExerciseId } from '#core'
import FieldRow from '../../ui/FieldRow.vue'
import PlainSelect from '../../ui/PlainSelect.vue'
import QuickDialog from '../../ui/QuickDialog.vue'
import { dayNumeral, longDayName } from '../../words/dates'
import { practiceName } from '../../words/plan'
import { entryOf, type TypedEntry } from './exact'
import type { PracticeLog } from './useLog'

/** One day, exercise by exercise: minutes, repetitions, or both. */
const props = defineProps<{ log: PracticeLog }>()
const open = defineModel<boolean>({ required: true })
const at = ref(0)
const fault = ref('')
const day = computed(() => props.log.days.value[at.value])
const rows = reactive<(TypedEntry & { exerciseId: ExerciseId })[]>([])

watch(
  open,
  (isOpen) => isOpen && (at.value = Math.min(props.log.at.value, props.log.days.value.length - 1)),
  {
    immediate: true,
  },
)
watch(
  [open, day],
  () => {
    fault.value = ''
    const of = day.value
    const typed = (of?.cards ?? []).map(({ exerciseId }) => {
      const entry = props.log.entryOf(of!.day, exerciseId)
      return { exerciseId, minutes: String(entry?.minutes ?? ''), times: String(entry?.times ?? '') }
    })
    rows.splice(0, rows.length, ...typed)
  },
  { immediate: true },
)

async function save() {
  const of = day.value
  if (!of) return
  const entries = rows.map((row) => ({ exerciseId: row.exerciseId, read: entryOf(row) }))
  const wrong = entries.find(({ read }) => !read.ok)
  if (wrong) {
    fault.value = `${practiceName(wrong.exerciseId)}: give whole numbers, up to 240 minutes and 1,000 times.`
    return
  }
  open.value = false
  await props.log.say(
    entries.flatMap(({ exerciseId, read }) =>
      read.ok && (read.isDone || props.log.entryOf(of.day, exerciseId))
        ? [{ exerciseId, on: of.day, isDone: read.isDone, minutes: read.minutes, times: read.times }]
        : [],
    ),
  )
}
</script>

<style scoped>
h2:focus {
  outline: none;
}

input {
  width: 76px;
  padding: 5px 8px;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  background: var(--card);
  color: var(--ink);
  font: 600 16px var(--font-text);
}
</style>
