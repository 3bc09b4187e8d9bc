<template>
  <div class="beside">
    <WalkIn @begin="emit('begin')" />
    <section class="card" aria-label="Without a student">
      <h2>Without a student</h2>
      <div class="way">
        <ElButton @click="router.push({ name: 'eye' })"
          >Practise the eye<KeyHint of="y" on-button
        /></ElButton>
        <p>A simulated hand has a fault, and you name it.</p>
      </div>
      <div class="way">
        <ElButton @click="router.push({ name: 'findings' })"
          >Every finding<KeyHint of="f" on-button
        /></ElButton>
        <p>Each as a hand plays it, and as it is told.</p>
      </div>
    </section>
  </div>
</template>

<script setup lang="ts">
import { useRouter } from 'vue-router'
import KeyHint from '../../ui/KeyHint.vue'
import { useShortcuts } from '../../ui/useShortcuts'
import WalkIn from './WalkIn.vue'

/** What Check offers while nobody is chosen. */
const emit = defineEmits<{
  /** With a walk-in. */
  begin: []
}>()
const router = useRouter()
useShortcuts('Without a student', [
  { key: 'y', does: 'Practise the eye', run: () => void router.push({ name: 'eye' }) },
  { key: 'f', does: 'Every finding', run: () => void router.push({ name: 'findings' }) },
])
</script>

<style scoped>
.beside {
  display: grid;
  gap: var(--gap);
  align-content: start;
}

.way {
  display: grid;
  grid-template-columns: 196px minmax(0, 1fr);
  align-items: center;
  gap: 4px 14px;
  margin-top: 10px;
}
</style>
