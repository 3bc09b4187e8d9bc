<template>
  <section class="card" aria-label="Pain that was told">
    <div class="head">
      <p class="eyebrow">Pain that was told</p>
      <ElButton v-if="!isMarking" text @click="begin">Mark pain</ElButton>
    </div>
    <form v-if="isMarking" @submit.prevent="mark">
      <FieldRow v-slot="{ id }" label="Where" :fault="fault">
        <ElInput :id="id" ref="field" v-model="place" maxlength="80" />
      </FieldRow>
      <FieldRow v-slot="{ id }" label="Since when">
        <ElInput :id="id" v-model="since" maxlength="80" />
      </FieldRow>
      <ElButton type="primary" native-type="submit">Mark it in the file</ElButton>
      <ElButton @click="isMarking = false">Leave it</ElButton>
    </form>
    <ul v-if="pains.length">
      <li v-for="pain in pains" :key="pain.id">
        <time :datetime="pain.toldOn">{{ shortDay(pain.toldOn) }}</time>
        <span dir="auto"
          ><b>{{ pain.place }}</b><template v-if="pain.since">, since {{ pain.since }}</template
          ><span class="soft">{{ endOf(pain) }}</span></span
        >
        <ElButton
          text
          :aria-label="`Take back: ${pain.place}, ${shortDay(pain.toldOn)}`"
          @click="emit('remove', pain)"
          >Told by mistake</ElButton
        >
      </li>
    </ul>
    <p v-else-if="!isMarking" class="soft">None.</p>
    <p class="soft small">
      Only what the lesson needs, with a guardian’s consent for a child, and no longer than needed.
    </p>
  </section>
</template>

<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { nextTick, ref } from 'vue'
import type { Pain } from '#contracts'
import FieldRow from '../../ui/FieldRow.vue'
import { shortDay } from '../../words/dates'
import { studioDay } from '../../words/shown'

/** All pain of the file, also what is over; told at any time, not only in a round. */
defineProps<{ pains: readonly Pain[] }>()
const emit = defineEmits<{
  mark: [draft: { toldOn: string; place: string; since: string }]
  remove: [pain: Pain]
}>()
const isMarking = ref(false)
const place = ref('')
const since = ref('')
const fault = ref<string>()
const field = ref<InputInstance>()

function endOf({ clearedOn, clearedNote }: Pain): string {
  return clearedOn === null ? '. Not cleared yet.' : `. Cleared on ${shortDay(clearedOn)}: ${clearedNote}`
}

async function begin() {
  isMarking.value = true
  fault.value = undefined
  place.value = since.value = ''
  await nextTick()
  field.value?.focus()
}

function mark() {
  fault.value = place.value.trim() === '' ? 'Name the place that hurts.' : undefined
  if (fault.value) return
  emit('mark', { toldOn: studioDay(), place: place.value, since: since.value })
  isMarking.value = false
}
</script>

<style scoped>
.card {
  display: grid;
  align-content: start;
  gap: 8px;
}

.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
}

form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}

form :deep(.el-button) {
  margin: 0;
}

ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: 104px minmax(0, 1fr) auto;
  align-items: baseline;
  gap: 10px;
  overflow-wrap: anywhere;
}

.small {
  font-size: 13.5px;
}
</style>
