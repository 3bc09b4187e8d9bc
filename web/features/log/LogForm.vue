<template>
  <form class="form" aria-label="New entry" @submit.prevent="write(false)">
    <FieldRow label="What">
      <ChoiceSelect v-model="kind" label="What happened" :options="KINDS" />
    </FieldRow>
    <FieldRow v-if="!log.isWhole(kind)" label="Which tape" :fault="faults['markId']">
      <ChoiceSelect v-model="markId" label="Which tape" :options="marks" />
    </FieldRow>
    <FieldRow v-if="hasPlace" label="Middle now" hint="a number alone is mm" :fault="faults['placeMm']">
      <template #default="{ id, invalid }">
        <ElInput
          :id="id"
          v-model="place"
          :aria-invalid="invalid"
          inputmode="decimal"
          data-takes="length"
          maxlength="12"
          :placeholder="expected"
        />
      </template>
      <template v-if="isDoubtful" #after>
        <ElButton size="small" @click="write(true)">Looked again: it lies there</ElButton>
      </template>
    </FieldRow>
    <FieldRow label="On" :fault="faults['on']">
      <template #default="{ id }"><input :id="id" v-model="on" type="date" class="date" /></template>
    </FieldRow>
    <FieldRow label="Why" class="why" :fault="faults['reason']">
      <template #default="{ id }">
        <ElInput
          :id="id"
          v-model="reason"
          maxlength="400"
          placeholder="warm hands; new strings; ready without"
        />
      </template>
    </FieldRow>
    <ElButton type="primary" native-type="submit" :disabled="isSaving">Write it down</ElButton>
  </form>
</template>

<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { parseLength, TAPE_EVENT_KINDS, type TapeEventKind } from '#core'
import type { Instrument } from '#contracts'
import { ApiProblem } from '../../api/client'
import { length } from '../../words/numbers'
import { EVENT_NAMES, markName } from '../../words/trade'
import ChoiceSelect from '../../ui/ChoiceSelect.vue'
import FieldRow from '../../ui/FieldRow.vue'
import type { useTapeLog } from './useTapeLog'
import { studioDay } from '../../words/shown'

/** Creep is found by a check, not chosen. */
const KINDS = TAPE_EVENT_KINDS.filter((kind) => kind !== 'crept').map((value) => ({
  value,
  label: EVENT_NAMES[value],
}))
const FIELDS = ['markId', 'placeMm', 'on', 'reason']

const props = defineProps<{ log: ReturnType<typeof useTapeLog>; instrument: Instrument }>()

const kind = ref<TapeEventKind>('checked')
const markId = ref(props.instrument.tapes[0]?.markId ?? '1.2')
const place = ref('')
const on = ref(studioDay())
const reason = ref('')
const faults = ref<Record<string, string | undefined>>({})
const isSaving = ref(false)

const marks = computed(() => props.log.marks.value.map((mark) => ({ value: mark.id, label: markName(mark) })))
const hasPlace = computed(
  () => !props.log.isWhole(kind.value) && kind.value !== 'removed' && kind.value !== 'faded',
)
const expected = computed(() => {
  const tape = props.instrument.tapes.find((t) => t.markId === markId.value)
  return tape ? `lay at ${length(tape.placeMm)}` : ''
})

/** Further from where it was than tapes creep. */
const isDoubtful = ref(false)
watch([kind, markId, place], () => (isDoubtful.value = false))

async function write(keepAnyway: boolean) {
  faults.value = {}
  isDoubtful.value = false
  const parsed = parseLength(place.value)
  if (hasPlace.value && !parsed.ok) {
    faults.value = { placeMm: 'Type where the tape’s middle is, from the nut, as in 31.6 or 1 1/4 in.' }
    return
  }
  isSaving.value = true
  try {
    await props.log.write({
      kind: kind.value,
      markId: props.log.isWhole(kind.value) ? null : markId.value,
      placeMm: hasPlace.value && parsed.ok ? parsed.lengthMm : null,
      on: on.value,
      reason: reason.value,
      keepAnyway,
    })
    place.value = ''
    reason.value = ''
  } catch (error) {
    if (!(error instanceof ApiProblem) || !['invalid_request', 'place_doubtful'].includes(error.code))
      throw error
    isDoubtful.value = error.code === 'place_doubtful'
    faults.value = Object.fromEntries(FIELDS.map((field) => [field, error.field(field)]))
  } finally {
    isSaving.value = false
  }
}
</script>

<style scoped>
.form {
  display: grid;
  grid-template-columns: 150px 150px 130px 150px 1fr auto;
  gap: 12px;
  align-items: end;
}

.date {
  height: 36px;
  padding: 0 8px;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  background: var(--card);
  color: var(--ink);
  font: 400 15px var(--font-text);
}

@media (width <= 1100px) {
  .form {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}

@media (width <= 560px) {
  .form {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
