<template>
  <PatternsHead />
</template>

<script setup lang="ts">
import PatternsHead from '../features/patterns/PatternsHead.vue'
</script>
