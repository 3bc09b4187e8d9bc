<template>
  <div class="decision">
    <template v-if="mode === undefined">
      <p v-if="decision" class="stands">{{ standing }}</p>
      <div class="acts">
        <ElButton v-if="decision?.says !== 'accepted'" size="small" @click="accept"
          >Accept<KeyHint of="a" on-button
        /></ElButton>
        <ElButton size="small" @click="open('overruled')">Overrule<KeyHint of="v" on-button /></ElButton>
        <ElButton size="small" @click="open('accepted')"
          >Reword, work on<KeyHint of="w" on-button
        /></ElButton>
      </div>
    </template>
    <form v-else @submit.prevent="save" @keydown.esc.stop.prevent="mode = undefined">
      <label v-if="mode === 'overruled'" class="field"
        ><span>Why</span><PlainSelect v-model="reason" label="Why it is overruled" :options="REASONS"
      /></label>
      <label class="field"
        ><span>In your words</span
        ><textarea ref="words" v-model="sentence" rows="2" maxlength="2000" :placeholder="told"></textarea>
      </label>
      <label class="field"
        ><span>One thing to work on</span
        ><input
          v-model="workOn"
          :list="listId"
          maxlength="160"
          autocomplete="off"
          :placeholder="standing === undefined ? 'Nothing chosen' : `As agreed: ${standing}`"
        />
        <datalist :id="listId"><option v-for="one in suggestions" :key="one" :value="one" /></datalist>
      </label>
      <div class="acts">
        <ElButton size="small" type="primary" native-type="submit">{{
          mode === 'overruled' ? 'Overrule' : 'Keep these words'
        }}</ElButton>
        <ElButton size="small" @click="mode = undefined">Leave it</ElButton>
      </div>
    </form>
  </div>
</template>

<script setup lang="ts">
import { computed, nextTick, ref, useId, watch } from 'vue'
import type { Decision, DecisionDraft, KeptVerdict } from '#contracts'
import { OVERRULE_REASONS, verdictSentence, workSuggestions } from '../words/verdict'
import KeyHint from './KeyHint.vue'
import PlainSelect from './PlainSelect.vue'
import { useShortcuts } from './useShortcuts'

/** The teacher decides: accepts, overrules with a reason, words it otherwise, picks the one thing to work on. */
const props = defineProps<{
  verdict: KeptVerdict
  decision: Decision | null
  /** What was agreed before and stands: accepting a verdict leaves it, only another thing takes its place. */
  standing?: string | undefined
}>()
const emit = defineEmits<{ decide: [draft: DecisionDraft] }>()

type Reason = keyof typeof OVERRULE_REASONS
const REASONS = Object.entries(OVERRULE_REASONS).map(([value, label]) => ({ value: value as Reason, label }))
const listId = useId()
const mode = ref<DecisionDraft['says']>()
const reason = ref<Reason>('seen_otherwise')
const sentence = ref('')
const workOn = ref('')
const words = ref<HTMLTextAreaElement>()

const told = computed(() => verdictSentence(props.verdict))
const suggestions = computed(() => workSuggestions(props.verdict))
const standing = computed(() => {
  const { decision } = props
  if (!decision) return ''
  const says =
    decision.says === 'accepted'
      ? 'Accepted'
      : `Overruled: ${OVERRULE_REASONS[decision.reason ?? 'other'].toLowerCase().replace(/^i\b/, 'I')}`
  return [
    `${says}.`,
    decision.sentence && `“${decision.sentence}”`,
    decision.workOn && `To work on: ${decision.workOn}.`,
  ]
    .filter(Boolean)
    .join(' ')
})

watch(
  () => props.verdict,
  () => (mode.value = undefined),
)

function accept() {
  emit('decide', {
    says: 'accepted',
    sentence: props.decision?.sentence ?? null,
    workOn: props.decision?.workOn ?? (props.standing === undefined ? (suggestions.value[0] ?? null) : null),
    isMended: props.decision?.isMended ?? false,
  })
}

function open(says: DecisionDraft['says']) {
  mode.value = says
  reason.value = props.decision?.reason ?? 'seen_otherwise'
  // Rewording begins with the sentence; why a verdict is overruled is her own to say.
  sentence.value = props.decision?.sentence ?? (says === 'accepted' ? told.value : '')
  workOn.value = props.decision?.workOn ?? (says === 'accepted' ? (suggestions.value[0] ?? '') : '')
  void nextTick(() => words.value?.focus())
}

function save() {
  if (!mode.value) return
  emit('decide', {
    says: mode.value,
    reason: mode.value === 'overruled' ? reason.value : null,
    sentence: sentence.value.trim() === told.value ? null : sentence.value.trim() || null,
    workOn: workOn.value.trim() || null,
    // Other words for a verdict do not take up again what is mended.
    isMended: props.decision?.isMended === true && workOn.value.trim() === props.decision.workOn,
  })
  mode.value = undefined
}

useShortcuts('The verdict', [
  { key: 'a', does: 'Accept it', run: accept },
  { key: 'v', does: 'Overrule it', run: () => open('overruled') },
  { key: 'w', does: 'Reword it, and say what is worked on', run: () => open('accepted') },
])
</script>

<style scoped>
.decision {
  padding-top: 10px;
  border-top: 1px solid var(--line);
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.acts .el-button {
  margin: 0;
}

.stands {
  margin: 0 0 8px;
  font-weight: 600;
}

form {
  display: grid;
  gap: 8px;
}

.field {
  display: grid;
  gap: 3px;
  font-size: 14.5px;
}

textarea,
input {
  width: 100%;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  padding: 7px 10px;
  background: var(--card);
  color: var(--ink);
  font: 400 16px/1.3 var(--font-text);
}
</style>
