<template>
  <QuickDialog v-model="open" label="Bring plans or logs in">
    <div class="bring">
      <h2>Bring plans or logs in</h2>
      <FieldRow v-slot="{ id }" label="The file" hint="CSV or JSON, as they are saved here">
        <input :id="id" type="file" accept=".csv,.json,text/csv,application/json" @change="choose" />
      </FieldRow>
      <p v-if="failure" class="fault" role="alert">{{ fileFailureWords(failure) }}</p>
      <template v-if="read">
        <p class="sum" role="status">
          <b class="numbers">{{ known(read.file.entries) }}</b> of a log,
          <b class="numbers">{{ known(read.file.plans) }}</b>
          {{ known(read.file.plans) === 1 ? 'plan' : 'plans' }}, of {{ count(called.length, 'student') }}.
        </p>
        <p v-if="unknown.length > 0" class="fault">
          Nobody, or more than one, is called {{ listed(unknown.map((name) => `“${name}”`)) }}: their rows are
          left out.
        </p>
        <ul v-if="read.file.faults.length > 0" class="fault">
          <li v-for="one in read.file.faults.slice(0, MOST_SHOWN)" :key="one.row">{{ faultWords(one) }}</li>
          <li v-if="read.file.faults.length > MOST_SHOWN">
            and {{ read.file.faults.length - MOST_SHOWN }} more rows.
          </li>
        </ul>
        <p class="soft">What was said here, and a week that is given, stays as it is.</p>
      </template>
      <div>
        <ElButton type="primary" :disabled="called.length === 0 || isSaving" @click="save"
          >Write it down</ElButton
        >
      </div>
    </div>
  </QuickDialog>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import FieldRow from '../../ui/FieldRow.vue'
import QuickDialog from '../../ui/QuickDialog.vue'
import { count, listed } from '../../words/numbers'
import { fileFailureWords, faultWords, useBringIn } from './useBringIn'

/** Plans and logs out of a file: what is in it and what is wrong with it is seen before anything is saved. */
const props = defineProps<{ after: () => Promise<void> }>()
const open = defineModel<boolean>({ required: true })
const bringing = useBringIn(() => props.after())
const { read, failure, isSaving } = bringing
const MOST_SHOWN = 6

const called = computed(() => [...(read.value?.students ?? [])].filter(([, student]) => student))
/** How many of these are somebody’s. */
const known = (rows: readonly { readonly student: string }[]) =>
  rows.filter(({ student }) => read.value?.students.get(student)).length
const unknown = computed(() =>
  [...(read.value?.students ?? [])].flatMap(([name, student]) => (student ? [] : [name])),
)

async function choose(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file) await bringing.look(await file.text())
}
async function save() {
  await bringing.save()
  open.value = false
}
</script>

<style scoped>
.bring {
  display: grid;
  gap: 12px;
}

h2 {
  font-size: 22px;
}

.sum b {
  font: 500 22px var(--font-title);
}

ul {
  margin: 0;
  padding-left: 18px;
}
</style>
