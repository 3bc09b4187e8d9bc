<template>
  <SubjectFields />
  <FieldRow label="Scale">
    <PlainSelect v-model="modeId" label="Scale" :options="MODE_OPTIONS" />
  </FieldRow>
  <FieldRow v-slot="{ id }" label="Key" :fault="typedFault">
    <ElInput
      :id="id"
      ref="keyField"
      v-model="typed"
      placeholder="G♯ minor"
      @keydown.enter="takeTyped"
      @keydown.esc="leaveField"
    />
  </FieldRow>
  <FieldRow v-if="techniqueOf(family.id).choosesFrame" label="Hand">
    <ElSegmented v-model="frameId" :options="frames" aria-label="Frame of the hand" />
  </FieldRow>
</template>

<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { MODE_IDS, parseKey, type ModeId, techniqueOf } from '#core'
import { keyFaultSentence, keyName, MODE_NAMES } from '../../words/keys'
import { FRAME_NAMES } from '../../words/patterns'
import PlainSelect from '../../ui/PlainSelect.vue'
import FieldRow from '../../ui/FieldRow.vue'
import { useShortcuts } from '../../ui/useShortcuts'
import SubjectFields from './SubjectFields.vue'
import { usePatterns } from './usePatterns'

const MODE_OPTIONS = MODE_IDS.map((value) => ({ value, label: MODE_NAMES[value] }))

/** Which instrument, which key, and for a bass in which hand. */
const patterns = usePatterns()
const { atlas } = patterns
const family = computed(() => atlas.family.value)

const modeId = computed<ModeId>({
  get: () => patterns.choice.modeId,
  set: (id) => atlas.chooseMode(id),
})
const frames = computed(() =>
  family.value.frames.map(({ id }) => ({ value: id, label: FRAME_NAMES[id] ?? id })),
)
const frameId = computed({
  get: () => patterns.choice.frameId || patterns.usualFrameId || (family.value.frames[0]?.id ?? ''),
  set: (id) => (patterns.choice.frameId = id),
})

const keyField = ref<{ focus(): void; blur(): void; select(): void }>()
const typed = ref('')
const typedFault = ref<string>()
watch(
  () => atlas.key.value.id,
  () => showKey(),
  { immediate: true },
)
function showKey() {
  typed.value = keyName(atlas.key.value)
  typedFault.value = undefined
}
function takeTyped() {
  const parsed = parseKey(typed.value)
  typedFault.value = parsed.ok ? undefined : keyFaultSentence(parsed.fault)
  if (!parsed.ok) return
  if (!atlas.isAllowed(parsed.key)) {
    typedFault.value = `${keyName(parsed.key)} asks for a pattern that ${patterns.student?.name} has not secure yet: press Esc, then O, to see every key.`
    return
  }
  atlas.chooseKey(parsed.key)
  showKey()
  keyField.value?.blur()
}
// What somebody looked for by its name, anywhere.
const route = useRoute()
const router = useRouter()
watch(
  () => route.query['key'],
  (wanted) => {
    if (typeof wanted !== 'string') return
    typed.value = wanted
    takeTyped()
    void router.replace({ query: {} })
  },
  { immediate: true },
)
function leaveField() {
  showKey()
  keyField.value?.blur()
}

useShortcuts('Key', [
  { key: 'k', does: 'Type a key', run: () => (keyField.value?.focus(), keyField.value?.select()) },
  {
    key: 'm',
    does: 'Next scale',
    run: () => atlas.chooseMode(MODE_IDS[(MODE_IDS.indexOf(patterns.choice.modeId) + 1) % MODE_IDS.length]!),
  },
])
</script>
