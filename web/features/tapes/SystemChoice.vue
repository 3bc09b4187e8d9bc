<template>
  <ChoiceSelect v-model="systemId" label="Places follow" :options="systems" class="system" />
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { noteName, type Note } from '#core'
import ChoiceSelect from '../shell/ChoiceSelect.vue'

/** The major keys that begin on naturals, and the two flat ones every beginner meets. */
const OTHER_KEYNOTES = ['C', 'D', 'F', 'G', 'A', 'B♭', 'E♭', 'E']

const props = defineProps<{ tuning: readonly Note[] }>()
const systemId = defineModel<string>({ required: true })

/** Open strings first: they are the drones at hand. */
const systems = computed(() => {
  const open = props.tuning.map((n) => noteName(n, { octave: false }))
  const keynotes = [...new Set([...open, ...OTHER_KEYNOTES])]
  return [
    { value: 'fifths', label: 'Ring (fifths)' },
    { value: 'equal', label: 'Equal' },
    ...keynotes.map((keynote) => ({ value: `just:${keynote}`, label: `Just on ${keynote}` })),
  ]
})
</script>

<style scoped>
.system {
  width: 144px;
}
</style>
