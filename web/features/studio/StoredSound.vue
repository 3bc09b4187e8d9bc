<template>
  <ElCheckbox :model-value="keeps" @update:model-value="(value) => change(value === true)"
    >Keep the sound of takes</ElCheckbox
  >
  <p class="soft">
    Only of students whose file holds consent. Ask first whether your school’s rules and the law where you
    teach allow it. Without it notes and pitch are kept, and no sound.
  </p>
  <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  <p v-else-if="stored && stored.recordings > 0" class="stored">
    {{ amount }} stored{{ keeps ? '' : ', though no more are kept' }}.
    <button type="button" class="word-button" @click="isAsking = true">Remove …</button>
  </p>
  <QuickDialog v-model="isAsking" label="Stored sound">
    <h2>{{ amount }} stored</h2>
    <p v-if="!keeps">No more sound is kept from now on. What is there stays until it is removed.</p>
    <p>
      Removing is for good: no backup that is put back here later brings the sound back. The notes and what
      was said of them stay. Copies in backup files are gone when those files are thrown away.
    </p>
    <div class="acts">
      <ElButton type="primary" autofocus @click="isAsking = false">Leave it stored</ElButton>
      <ElButton type="danger" plain @click="remove">Remove all for good</ElButton>
    </div>
  </QuickDialog>
</template>

<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'
import type { StoredSound } from '#contracts'
import { call } from '../../api/client'
import { useNotices } from '../../stores/notices'
import QuickDialog from '../../ui/QuickDialog.vue'
import { count } from '../../words/numbers'

/** Whether the studio keeps sound; who switches it off is told what is stored, and may remove it. */
const props = defineProps<{ keeps: boolean; set: (keeps: boolean) => Promise<void> }>()
const notices = useNotices()
const stored = shallowRef<StoredSound>()
const fault = ref('')
const isAsking = ref(false)

const amount = computed(() => {
  const { recordings = 0, students = 0, byteCount = 0 } = stored.value ?? {}
  const size = Math.max(1, Math.round(byteCount / 1e6))
  return `${count(recordings, 'recording')} of ${count(students, 'student')} (${size} MB) ${recordings === 1 ? 'is' : 'are'}`
})

async function look() {
  try {
    stored.value = await call('sound.stored', {})
    fault.value = ''
  } catch (error) {
    fault.value = `What is stored cannot be told: ${error instanceof Error ? error.message : 'try again.'}`
  }
}
void look()

async function change(keeps: boolean) {
  await props.set(keeps)
  if (keeps) return
  await look()
  isAsking.value = (stored.value?.recordings ?? 0) > 0
}

async function remove() {
  isAsking.value = false
  try {
    await call('sound.remove', {})
    notices.say('All stored sound is removed.')
  } catch (error) {
    notices.fault(error)
  }
  await look()
}
</script>

<style scoped>
h2 {
  margin-bottom: 8px;
  font-size: 21px;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 16px;
}

.acts .el-button {
  margin: 0;
}
</style>
