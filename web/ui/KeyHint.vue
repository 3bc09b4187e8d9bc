<template>
  <kbd :class="{ 'on-button': onButton }"><template v-if="isTyped">Esc </template>{{ name }}</kbd>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { keyName } from './keyName'
import { useIsTyped } from './typing'

/** The key of a button, true at every moment: where a field would take it, Escape is named before it. */
const props = defineProps<{ of: string; onButton?: boolean }>()
const name = computed(() => keyName(props.of))
const isTyped = useIsTyped(() => props.of)
</script>
