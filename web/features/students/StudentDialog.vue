<template>
  <QuickDialog v-model="isOpen" :label="title">
    <form @submit.prevent="form.save()">
      <h2>{{ title }}</h2>
      <TwoVersions
        v-if="form.theirs.value"
        :differences="form.differences.value"
        :words="wordsOf"
        @choose="form.choose"
        @theirs="form.takeTheirs()"
      />
      <FieldRow label="Name" :fault="form.fault('name')">
        <template #default="{ id, invalid }">
          <ElInput
            :id="id"
            v-model="fields.name"
            autofocus
            :aria-invalid="invalid"
            autocomplete="off"
            dir="auto"
          />
        </template>
      </FieldRow>
      <div class="pair">
        <FieldRow label="Instrument family">
          <ChoiceSelect
            v-model="fields.family"
            label="Instrument family"
            :options="FAMILIES"
            @update:model-value="startFamily"
          />
        </FieldRow>
        <FieldRow label="Born in" :fault="form.fault('birthYear')" hint="optional">
          <template #default="{ id }">
            <ElInput
              :id="id"
              v-model="fields.birthYear"
              inputmode="numeric"
              data-takes="number"
              autocomplete="off"
            />
          </template>
        </FieldRow>
      </div>
      <div v-if="!student" class="pair">
        <FieldRow label="Instrument" hint="brought along" :fault="form.fault('instrument.sizeId')">
          <ChoiceSelect v-model="fields.sizeId" label="Size of the instrument" :options="form.sizes.value" />
        </FieldRow>
        <FieldRow label="String length" hint="if measured" :fault="form.fault('instrument.length')">
          <template #default="{ id, invalid }">
            <ElInput
              :id="id"
              v-model="fields.length"
              data-takes="length"
              autocomplete="off"
              maxlength="40"
              placeholder="284.5, or 11 3/16 in"
              :aria-invalid="invalid"
            />
          </template>
        </FieldRow>
      </div>
      <p v-if="!student && form.lengthSays.value" class="soft says" aria-live="polite">
        {{ form.lengthSays.value }}
        <ElButton v-if="form.isDoubtful.value" size="small" @click="form.keepLength()"
          >Measured twice: keep it</ElButton
        >
      </p>
      <div class="pair">
        <FieldRow label="In tune within" :fault="form.fault('toleranceCents')">
          <ChoiceSelect v-model="fields.within" label="In tune within" :options="form.tolerances.value" />
        </FieldRow>
        <FieldRow label="Tapes" :fault="form.fault('tapeSchoolId')">
          <ChoiceSelect v-model="fields.tapeSchoolId" label="Tapes" :options="form.schools.value" />
        </FieldRow>
      </div>
      <p v-if="counted" class="soft counted">{{ counted }}</p>
      <div class="pair">
        <FieldRow label="Tune by" :fault="form.fault('system')" hint="tapes that lie go before">
          <ChoiceSelect v-model="fields.system" label="Tune by" :options="form.systems.value" />
        </FieldRow>
        <div class="when">
          <FieldRow label="Lesson">
            <ChoiceSelect v-model="fields.weekday" label="Lesson day" :options="DAYS" />
          </FieldRow>
          <FieldRow v-if="fields.weekday >= 0" label="At" :fault="form.fault('lesson.time')">
            <template #default="{ id }"><ElInput :id="id" v-model="fields.time" type="time" /></template>
          </FieldRow>
        </div>
      </div>
      <div v-if="form.asksConsent.value || form.withdraws.value" class="pair">
        <FieldRow label="Consent to sound" :fault="form.fault('soundConsent.by')" hint="who gave it">
          <template #default="{ id }">
            <ElInput :id="id" v-model="fields.consentBy" autocomplete="off" dir="auto" />
          </template>
        </FieldRow>
        <FieldRow
          v-if="fields.consentBy"
          label="On"
          :fault="form.fault('soundConsent.on')"
          hint="empty for today"
        >
          <template #default="{ id }"><ElInput :id="id" v-model="fields.consentOn" type="date" /></template>
        </FieldRow>
      </div>
      <p v-if="form.withdraws.value" class="fault" role="alert">
        Saved without a name, the consent is withdrawn: every recording of this student is removed for good.
        Backups made before still hold them until they are thrown away.
      </p>
      <FieldRow label="Note" :fault="form.fault('note')">
        <template #default="{ id }">
          <ElInput :id="id" v-model="fields.note" type="textarea" :rows="2" dir="auto" />
        </template>
      </FieldRow>
      <p v-if="form.generalFault.value" class="fault" role="alert">{{ form.generalFault.value }}</p>
      <div class="acts">
        <ElButton @click="isOpen = false">Cancel</ElButton>
        <ElButton
          type="primary"
          native-type="submit"
          :loading="form.busy.value"
          :disabled="!form.isDecided.value"
        >
          {{ student ? 'Save' : 'Enrol' }}
        </ElButton>
      </div>
    </form>
  </QuickDialog>
</template>

<script setup lang="ts">
import { computed, watch } from 'vue'
import { FAMILY_IDS } from '#core'
import type { Student } from '#contracts'
import { ApiProblem, call } from '../../api/client'
import { useLoaded } from '../../api/useLoaded'
import { useSettings } from '../../stores/settings'
import { FAMILY_NAMES, WEEKDAYS } from '../../words/trade'
import { countsSentence } from '../../words/verdict'
import ChoiceSelect from '../../ui/ChoiceSelect.vue'
import FieldRow from '../../ui/FieldRow.vue'
import QuickDialog from '../../ui/QuickDialog.vue'
import TwoVersions from './TwoVersions.vue'
import { AS_USUAL, NO_INSTRUMENT, useStudentForm, type FileField } from './useStudentForm'

/** From memory: a beginner within about 20 cents, a trained player within 10, ears notice from about 5. */
const FAMILIES = FAMILY_IDS.map((id) => ({ value: id, label: FAMILY_NAMES[id] }))
const DAYS = [{ value: -1, label: 'No fixed day' }, ...WEEKDAYS.map((label, value) => ({ value, label }))]

/** What a field holds, as its choice says it. */
function wordsOf(field: FileField, value: string | number): string {
  const among: Partial<Record<FileField, readonly { readonly value: unknown; readonly label: string }[]>> = {
    family: FAMILIES,
    weekday: DAYS,
    within: form.tolerances.value,
    tapeSchoolId: form.schools.value,
    system: form.systems.value,
  }
  return among[field]?.find((option) => option.value === value)?.label ?? String(value)
}

const isOpen = defineModel<boolean>({ required: true })
const props = defineProps<{ student: Student | undefined }>()
const title = computed(() => (props.student ? 'Change the file' : 'New student'))
const emit = defineEmits<{ saved: [student: Student] }>()

const form = useStudentForm((student) => {
  isOpen.value = false
  emit('saved', student)
})
const { fields } = form
/** Schools and sizes are of one family. */
function startFamily() {
  fields.tapeSchoolId = AS_USUAL
  fields.sizeId = NO_INSTRUMENT
}
const settings = useSettings()
/** What became of verdicts within each tolerance; the form needs them not. */
const counts = useLoaded(
  () => (isOpen.value ? 'of the studio' : undefined),
  () =>
    call('checks.counts', {}).catch((error: unknown) => {
      if (error instanceof ApiProblem && error.isPassing) return []
      throw error
    }),
)
const counted = computed(() => {
  const { within } = fields
  const toleranceCents = typeof within === 'number' ? within : settings.settings?.tolerances[within]
  return toleranceCents === undefined ? '' : countsSentence(counts.data.value ?? [], toleranceCents)
})
watch(isOpen, (open) => open && form.open(props.student), { immediate: true })
</script>

<style scoped>
.says,
.counted {
  margin: -6px 0 0;
  font-size: 14.5px;
}

form {
  display: grid;
  gap: 12px;
}

.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
}

.when {
  display: flex;
  gap: 10px;
}

.when > :first-child {
  flex: 1;
  min-width: 0;
}

.acts {
  display: flex;
  justify-content: end;
  gap: 8px;
}
</style>
