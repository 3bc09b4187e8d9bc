<template>
  <div ref="row" class="field">
    <component :is="isLabelled ? 'label' : 'span'" class="label" :for="isLabelled ? id : undefined">
      {{ label }} <span v-if="hint" class="soft">{{ hint }}</span>
    </component>
    <slot :id="id" :invalid="fault !== undefined" />
    <p v-if="fault" :id="faultId" class="fault" role="alert">{{ fault }}</p>
    <slot name="after" />
  </div>
</template>

<script setup lang="ts">
import { nextTick, onMounted, provide, ref, useId, watch } from 'vue'
import { FIELD } from './field'

/**
 * A label, what it names, and what is wrong with it. Whatever control takes the id is labelled and, while there is a fault,
 * described by it; a group of several has its own names.
 */
const props = defineProps<{ label: string; fault?: string | undefined; hint?: string | undefined }>()
const id = useId()
const faultId = `${id}-fault`
let isClaimed = false
provide(FIELD, { claim: () => (isClaimed ? undefined : ((isClaimed = true), id)) })

const row = ref<HTMLElement>()
const isLabelled = ref(true)
async function link() {
  await nextTick()
  const control = row.value?.querySelector(`[id="${id}"]`)
  isLabelled.value = control?.matches('input, select, textarea, button') ?? false
  if (!control) return
  if (props.fault === undefined) control.removeAttribute('aria-describedby')
  else control.setAttribute('aria-describedby', faultId)
  control.setAttribute('aria-invalid', String(props.fault !== undefined))
}
onMounted(link)
watch(() => props.fault, link)
</script>

<style scoped>
.field {
  display: grid;
  align-content: start;
  gap: 3px;
}

.label {
  font-weight: 600;
  font-size: 15px;
  color: var(--ink);
}

.label .soft {
  font-weight: 400;
}

.fault {
  font-size: 14.5px;
}
</style>
