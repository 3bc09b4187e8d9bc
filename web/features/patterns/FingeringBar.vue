<template>
  <section class="fingering" aria-label="Which fingering">
    <div v-if="!line.own.own.value && !line.own.isChanged.value" class="choices">
      <FieldRow label="Fingering">
        <PlainSelect
          :model-value="line.alternative.value?.id ?? 'usual'"
          label="Fingering"
          :options="alternatives"
          @update:model-value="(id) => emit('choose', id)"
        />
      </FieldRow>
      <span class="next"><KeyHint of="v" /></span>
      <p class="why soft" role="status">{{ why }}</p>
    </div>
    <p v-else class="state" role="status">
      <b>{{ line.own.isChanged.value ? 'Your change' : 'The studio’s own fingering' }}</b>
      {{ stateWords }}
    </p>
    <p class="keys soft">
      Choose a note to change it. <kbd>0</kbd>–<kbd>4</kbd> <kbd>t</kbd> finger, <kbd>↑</kbd>
      <kbd>↓</kbd> string, <kbd>s</kbd> shift here or not, <kbd>r</kbd> ring as a harmonic, <kbd>⌫</kbd> as it
      was.
    </p>
    <div class="acts">
      <ElButton v-if="line.canKeep.value" type="primary" @click="emit('keep')"
        >Keep for the studio<kbd class="on-button">Ctrl ⏎</kbd></ElButton
      >
      <ElButton v-if="line.own.isChanged.value" @click="line.own.drop()">Drop the change</ElButton>
      <ElButton v-else-if="line.own.own.value" @click="emit('usual')">The usual again</ElButton>
    </div>
  </section>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import type { AlternativeId } from '#core'
import FieldRow from '../../ui/FieldRow.vue'
import KeyHint from '../../ui/KeyHint.vue'
import PlainSelect from '../../ui/PlainSelect.vue'
import { count } from '../../words/numbers'
import { ALTERNATIVE_NAMES, alternativeSentence } from '../../words/fingerings'
import type { Line } from './useLine'

/** Which of several fingerings stands on the staff, and what the studio keeps as its own. */
const props = defineProps<{ line: Line }>()
const emit = defineEmits<{ choose: [id: AlternativeId]; keep: []; usual: [] }>()

const alternatives = computed(() => {
  const found = props.line.alternatives.value.map(({ id }) => ({ value: id, label: ALTERNATIVE_NAMES[id] }))
  return found.length > 0 ? found : [{ value: 'usual' as const, label: ALTERNATIVE_NAMES.usual }]
})
const why = computed(() => {
  const shown = props.line.alternative.value ?? props.line.alternatives.value[0]
  return shown ? alternativeSentence(shown) : ''
})
const stateWords = computed(() => {
  const { isChanged, settled, own } = props.line.own
  if (isChanged.value)
    return `${count(settled.value.size, 'note')} settled, the rest fingered around them. Not kept yet.`
  return own.value?.by
    ? `kept by ${own.value.by}; printed and played from now on.`
    : 'kept; printed and played from now on.'
})
</script>

<style scoped>
.fingering {
  display: grid;
  gap: 4px 20px;
  margin-top: 8px;
  padding-top: 10px;
  border-top: 1px solid var(--line);
}

.choices {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 4px 18px;
}

.choices :deep(.el-select) {
  width: 210px;
}

.why,
.next {
  padding-bottom: 7px;
}

.keys {
  font-size: 14.5px;
}

.acts {
  display: flex;
  gap: 10px;
}

.acts:empty {
  display: none;
}

.acts :deep(.el-button) {
  margin: 0;
}
</style>
