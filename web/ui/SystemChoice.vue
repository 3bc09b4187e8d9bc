<template>
  <ChoiceSelect v-model="systemId" label="Tune by" :options="systems" class="system" />
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { noteName, readScaleId, type Note } from '#core'
import { KEYNOTES, shortSystemName } from '../words/trade'
import ChoiceSelect from './ChoiceSelect.vue'

const props = defineProps<{ tuning: readonly Note[] }>()
const systemId = defineModel<string>({ required: true })

/** Open strings first: they are the drones at hand. A scale of one's own is there while it is chosen. */
const systems = computed(() => {
  const open = props.tuning.map((n) => noteName(n, { octave: false }))
  const keynotes = [...new Set([...open, ...KEYNOTES])]
  const own = readScaleId(systemId.value) ? [systemId.value] : []
  return [
    { value: 'fifths', label: 'Ring (fifths)' },
    ...['equal', ...keynotes.map((keynote) => `just:${keynote}`), ...own].map((id) => ({
      value: id,
      label: shortSystemName(id),
    })),
  ]
})
</script>

<style scoped>
.system {
  width: 144px;
}
</style>
