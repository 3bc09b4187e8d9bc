<template>
  <QuickDialog v-model="open" label="New instrument">
    <form class="form" @submit.prevent="save">
      <h2>New instrument</h2>
      <FieldRow label="Number or name" :fault="fault">
        <template #default="{ id, invalid }">
          <ElInput
            :id="id"
            v-model="label"
            autofocus
            maxlength="60"
            placeholder="no. 21"
            :aria-invalid="invalid"
          />
        </template>
      </FieldRow>
      <div class="pair">
        <FamilyAndSize v-model:family="family" v-model:size-id="sizeId" />
      </div>
      <div class="acts">
        <ElButton @click="open = false">Cancel</ElButton>
        <ElButton type="primary" native-type="submit" :disabled="label.trim() === ''">Add it</ElButton>
      </div>
    </form>
  </QuickDialog>
</template>

<script setup lang="ts">
import { ref, watch } from 'vue'
import { familyOf, type FamilyId } from '#core'
import { ApiProblem } from '../../api/client'
import { useNotices } from '../../stores/notices'
import { useOutbox } from '../../stores/outbox'
import { useStudio } from '../../stores/studio'
import FamilyAndSize from '../../ui/FamilyAndSize.vue'
import FieldRow from '../../ui/FieldRow.vue'
import QuickDialog from '../../ui/QuickDialog.vue'

const open = defineModel<boolean>({ required: true })
const studio = useStudio()
const notices = useNotices()
const outbox = useOutbox()
const label = ref('')
const family = ref<FamilyId>('violin')
const sizeId = ref('4/4')
const fault = ref<string>()
watch(open, () => (label.value = ''))
watch(family, () => (sizeId.value = familyOf(family.value).sizes[0]?.id ?? ''))

async function save() {
  fault.value = undefined
  try {
    const body = { label: label.value, family: family.value, sizeId: sizeId.value }
    const made = await outbox.send('instruments.create', { body }, { what: `the instrument ${body.label}` })
    studio.takeInstrument(made)
    notices.say(`${made.label} is in the cupboard.`)
    open.value = false
  } catch (error) {
    if (!(error instanceof ApiProblem) || error.code !== 'invalid_request') throw error
    fault.value = error.field('label') ?? error.message
  }
}
</script>

<style scoped>
.form {
  display: grid;
  gap: 14px;
}

.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}

.acts {
  display: flex;
  justify-content: end;
  gap: 8px;
}
</style>
