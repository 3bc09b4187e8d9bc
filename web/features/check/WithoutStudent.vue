<template>
  <div class="beside">
    <WalkIn @begin="emit('begin')" />
    <section class="card" aria-label="Without a student">
      <h2>Without a student</h2>
      <p>
        <RouterLink :to="{ name: 'eye' }">Practise the eye</RouterLink>: a simulated hand has a fault, you
        name it.
      </p>
      <p>
        <RouterLink :to="{ name: 'findings' }">Every finding</RouterLink>, as a hand plays it and as it is
        told.
      </p>
    </section>
  </div>
</template>

<script setup lang="ts">
import WalkIn from './WalkIn.vue'

/** What Check offers while nobody is chosen. */
const emit = defineEmits<{
  /** With a walk-in. */
  begin: []
}>()
</script>

<style scoped>
.beside {
  display: grid;
  gap: var(--gap);
  align-content: start;
}
</style>
