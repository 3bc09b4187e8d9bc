<template>
  <div class="field">
    <label :for="id">
      {{ label }} <span v-if="hint" class="soft">{{ hint }}</span>
    </label>
    <slot :id="id" :invalid="fault !== undefined" />
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <slot name="after" />
  </div>
</template>

<script setup lang="ts">
import { useId } from 'vue'

defineProps<{ label: string; fault?: string | undefined; hint?: string }>()
const id = useId()
</script>

<style scoped>
.field {
  display: grid;
  align-content: start;
  gap: 3px;
}

label {
  font-weight: 600;
  font-size: 15px;
  color: var(--ink);
}

label .soft {
  font-weight: 400;
}

.fault {
  font-size: 14.5px;
}
</style>
