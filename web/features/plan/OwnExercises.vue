<template>
  <ul v-if="offered.length > 0">
    <li v-for="one in offered" :key="one.id">
      <b dir="auto">{{ one.name }}</b>
      <span class="how soft" dir="auto">{{ one.how }}</span>
      <span class="soft numbers">{{ count(one.minutes, 'minute') }}</span>
      <span class="acts">
        <ElButton text :aria-label="`Change ${one.name}`" @click="begin(one)">Change</ElButton>
        <ElButton text :aria-label="`Take ${one.name} off`" @click="takeOff(one)">Take off</ElButton>
      </span>
    </li>
  </ul>
  <p v-else class="soft">None yet: what you give to practise beside the usual exercises stands here.</p>
  <div><ElButton @click="begin(undefined)">Write an exercise</ElButton></div>
  <OwnExerciseForm v-model="isOpen" :exercise="changed" />
</template>

<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'
import type { OwnExercise } from '#contracts'
import { UNDO, useNotices } from '../../stores/notices'
import { useSettings } from '../../stores/settings'
import { count } from '../../words/numbers'
import OwnExerciseForm from './OwnExerciseForm.vue'

/** The studio’s own exercises: written, changed, and taken off; in old plans they keep their names. */
const settings = useSettings()
const notices = useNotices()
const offered = computed(() => settings.settings?.exercises.filter(({ isOffered }) => isOffered) ?? [])
const isOpen = ref(false)
const changed = shallowRef<OwnExercise>()

function begin(one: OwnExercise | undefined) {
  changed.value = one
  isOpen.value = true
}

const setOffered = (id: string, isOffered: boolean) =>
  settings.change({
    settings: (now) => ({
      ...now,
      exercises: now.exercises.map((one) => (one.id === id ? { ...one, isOffered } : one)),
    }),
  })

async function takeOff({ id, name }: OwnExercise) {
  await setOffered(id, false)
  notices.say(`${name} is given no more; plans that have it keep it.`, {
    label: UNDO,
    run: () => setOffered(id, true),
  })
}
</script>

<style scoped>
ul {
  display: grid;
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: 200px minmax(0, 1fr) auto auto;
  align-items: center;
  gap: 4px 14px;
  min-height: 38px;
  border-bottom: 1px solid var(--line);
}

.how {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.acts :deep(.el-button) {
  margin: 0;
  padding: 6px 8px;
}

@media (width <= 760px) {
  li {
    grid-template-columns: minmax(0, 1fr) auto;
    padding-block: 6px;
  }

  .how {
    grid-column: 1 / -1;
    white-space: normal;
  }
}
</style>
