<template>
  <QuickDialog v-model="open" :label="title" wide>
    <div class="inside">
      <div class="side">
        <h2 tabindex="-1" autofocus>{{ title }}</h2>
        <slot />
        <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      </div>
      <div class="sheet"><PagePreview v-if="page" :page="page" /></div>
    </div>
  </QuickDialog>
</template>

<script setup lang="ts">
import type { Page } from '#core'
import QuickDialog from '../ui/QuickDialog.vue'
import PagePreview from './PagePreview.vue'

/** What is about to be printed: its choices at the left, the sheet as it will be at the right. */
defineProps<{ title: string; page: Page | undefined; fault: string }>()
const open = defineModel<boolean>({ required: true })
</script>

<style scoped>
.inside {
  display: grid;
  grid-template-columns: 250px 1fr;
  gap: 24px;
}

.side {
  display: grid;
  align-content: start;
  gap: 12px;
}

.side :deep(.el-button) {
  margin: 0;
}

h2:focus {
  outline: none;
}

.sheet {
  max-height: 66vh;
}

@media (width <= 700px) {
  .inside {
    grid-template-columns: 1fr;
  }
}
</style>
