<template>
  <RouterLink :to="to">Plan the week<KeyHint of="g" /></RouterLink>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import KeyHint from '../../ui/KeyHint.vue'
import { useShortcuts } from '../../ui/useShortcuts'

/** From what was found to what is practised, by one key; there for a student, and for no walk-in. */
const props = defineProps<{ studentId: string }>()
const router = useRouter()
const to = computed(() => ({ name: 'plan', params: { studentId: props.studentId } }))

useShortcuts('The verdict', [
  { key: 'g', does: 'Plan the week’s practice', run: () => void router.push(to.value) },
])
</script>

<style scoped>
a {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
</style>
