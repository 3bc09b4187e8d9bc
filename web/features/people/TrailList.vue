<template>
  <div class="fields">
    <FieldRow label="Who">
      <PlainSelect v-model="who" label="Who" :options="people" />
    </FieldRow>
    <FieldRow label="What">
      <PlainSelect v-model="kind" label="What" :options="KINDS" />
    </FieldRow>
    <p v-if="student" class="of">
      Of <strong dir="auto">{{ student }}</strong>
      <button type="button" class="word-button" @click="emit('all')">everybody</button>
    </p>
  </div>
  <ol v-if="days.length > 0" class="trail">
    <li v-for="day in days" :key="day.day">
      <p class="eyebrow">{{ day.day }}</p>
      <ul>
        <li v-for="entry in day.entries" :key="entry.id">
          <span class="soft time">{{ clockTime(entry.at) }}</span>
          <span>
            <strong v-if="entry.by" dir="auto">{{ entry.by }}</strong> {{ DEED_WORDS[entry.deed]
            }}<template v-if="entry.student">, <bdi>{{ entry.student }}</bdi></template>
          </span>
        </li>
      </ul>
    </li>
  </ol>
  <p v-else-if="isRead" class="soft">Nothing of the kind.</p>
  <ElButton v-if="hasMore" :loading="isReading" @click="more"
    >Earlier ones<KeyHint of="m" on-button
  /></ElButton>
</template>

<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import type { AuditEntry, AuditQuery, Person } from '#contracts'
import { call } from '../../api/client'
import FieldRow from '../../ui/FieldRow.vue'
import KeyHint from '../../ui/KeyHint.vue'
import PlainSelect from '../../ui/PlainSelect.vue'
import { clockTime, shortDay } from '../../words/dates'
import { DEED_WORDS } from '../../words/trail'

const props = defineProps<{ teachers: readonly Person[]; studentId: string | undefined }>()
const emit = defineEmits<{ all: [] }>()

const EVERYBODY = ''
const KINDS = [
  { value: 'changed' as const, label: 'Changed' },
  { value: 'seen' as const, label: 'Seen' },
  { value: 'all' as const, label: 'Both' },
]
const who = ref(EVERYBODY)
const kind = ref<NonNullable<AuditQuery['kind']>>('changed')
const entries = shallowRef<readonly AuditEntry[]>([])
const hasMore = ref(false)
const isReading = ref(false)
const isRead = ref(false)

const people = computed(() => [
  { value: EVERYBODY, label: 'Everybody' },
  ...props.teachers.map(({ id, name }) => ({ value: id, label: name })),
])
const student = computed(() =>
  props.studentId === undefined
    ? undefined
    : (entries.value.find((entry) => entry.student)?.student ?? 'one student'),
)
const days = computed(() => {
  const found: { day: string; entries: AuditEntry[] }[] = []
  for (const entry of entries.value) {
    const day = shortDay(entry.at)
    if (found.at(-1)?.day !== day) found.push({ day, entries: [] })
    found.at(-1)!.entries.push(entry)
  }
  return found
})

const query = computed(() => ({
  kind: kind.value,
  ...(who.value === EVERYBODY ? {} : { userId: who.value }),
  ...(props.studentId === undefined ? {} : { studentId: props.studentId }),
}))

async function read(before?: string) {
  const of = query.value
  isReading.value = true
  try {
    const page = await call('audit.list', { query: { ...of, ...(before === undefined ? {} : { before }) } })
    if (of !== query.value) return
    entries.value = before === undefined ? page.entries : [...entries.value, ...page.entries]
    hasMore.value = page.hasMore
    isRead.value = true
  } finally {
    isReading.value = false
  }
}
const more = () => read(entries.value.at(-1)?.id)
watch(query, () => read(), { immediate: true })

/** Everything that the filters let through, for a file: page by page, to the first there is. */
async function all(): Promise<AuditEntry[]> {
  const found: AuditEntry[] = []
  for (;;) {
    const before = found.at(-1)?.id
    const page = await call('audit.list', {
      query: { ...query.value, limit: 200, ...(before === undefined ? {} : { before }) },
    })
    found.push(...page.entries)
    if (!page.hasMore) return found
  }
}
defineExpose({ all, more: () => hasMore.value && more(), again: () => read() })
</script>

<style scoped>
.fields {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px 18px;
}

.of {
  margin: 0 0 6px;
}

.trail,
.trail ul {
  list-style: none;
  margin: 0;
  padding: 0;
}

.eyebrow {
  margin: 14px 0 4px;
}

.trail ul li {
  display: grid;
  grid-template-columns: 54px minmax(0, 1fr);
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
}

.time {
  font-variant-numeric: tabular-nums lining-nums;
}
</style>
