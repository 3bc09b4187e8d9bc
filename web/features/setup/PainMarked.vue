<template>
  <section v-for="pain in pains" :key="pain.id" class="marked" aria-label="Pain that is not cleared">
    <p>
      <b>Pain: {{ pain.place }}</b><template v-if="pain.since">, since {{ pain.since }}</template>. Told on
      {{ shortDay(pain.toldOn) }} to {{ pain.by }}. {{ PAIN_CAUTION }}
    </p>
    <form v-if="clearing === pain.id" @submit.prevent="clear(pain)">
      <FieldRow
        v-slot="{ id }"
        label="Who said that playing is all right again?"
        :fault="note.trim() === '' ? 'Say who, in a few words.' : undefined"
      >
        <ElInput :id="id" ref="field" v-model="note" maxlength="300" />
      </FieldRow>
      <ElButton type="primary" native-type="submit" :disabled="note.trim() === ''">Clear it</ElButton>
      <ElButton @click="clearing = ''">Not yet</ElButton>
    </form>
    <ElButton v-else @click="begin(pain)">It is cleared</ElButton>
  </section>
</template>

<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { nextTick, ref } from 'vue'
import type { Pain } from '#contracts'
import { call } from '../../api/client'
import { UNDO, useNotices } from '../../stores/notices'
import { useOutbox } from '../../stores/outbox'
import { useStudio } from '../../stores/studio'
import FieldRow from '../../ui/FieldRow.vue'
import { shortDay } from '../../words/dates'
import { PAIN_CAUTION } from '../../words/pain'
import { studioDay } from '../../words/shown'

/** What was told and not cleared: it stands above everything else of this student. */
const props = defineProps<{ pains: readonly Pain[]; studentId: string; name: string }>()
const outbox = useOutbox()
const notices = useNotices()
const studio = useStudio()
const clearing = ref('')
const note = ref('')
const field = ref<InputInstance | InputInstance[]>()

async function begin(pain: Pain) {
  clearing.value = pain.id
  note.value = ''
  await nextTick()
  const shown = Array.isArray(field.value) ? field.value[0] : field.value
  shown?.focus()
}

async function clear({ id, place }: Pain) {
  const params = { painId: id }
  await outbox.send(
    'pains.clear',
    { params, body: { on: studioDay(), note: note.value } },
    { what: `that ${props.name}’s pain is cleared` },
  )
  clearing.value = ''
  await studio.loadStudent(props.studentId)
  notices.say(`Cleared: ${place}.`, {
    label: UNDO,
    run: async () => {
      await call('pains.reopen', { params })
      await studio.loadStudent(props.studentId)
    },
  })
}
</script>

<style scoped>
.marked {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  gap: 8px 16px;
  margin-bottom: 12px;
  padding: 10px 16px;
  border: 1px solid var(--danger);
  border-left-width: 5px;
  border-radius: var(--radius);
  background: var(--card);
}

b {
  color: var(--danger);
}

form {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px;
}

form > :first-child {
  flex: 1 1 320px;
}

@media (width <= 560px) {
  .marked {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
