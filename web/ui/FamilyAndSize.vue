<template>
  <FieldRow label="Family">
    <ChoiceSelect v-model="family" label="Family" :options="FAMILIES" />
  </FieldRow>
  <FieldRow label="Size">
    <ChoiceSelect v-model="sizeId" label="Size" :options="sizes" />
  </FieldRow>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { FAMILY_IDS, familyOf, type FamilyId } from '#core'
import { FAMILY_NAMES, sizeName } from '../words/trade'
import ChoiceSelect from './ChoiceSelect.vue'
import FieldRow from './FieldRow.vue'

/** Which family, and which of its sizes: two fields side by side. */
const family = defineModel<FamilyId>('family', { required: true })
const sizeId = defineModel<string>('sizeId', { required: true })

const FAMILIES = FAMILY_IDS.map((value) => ({ value, label: FAMILY_NAMES[value] }))
const sizes = computed(() =>
  familyOf(family.value).sizes.map(({ id }) => ({ value: id, label: sizeName(id) })),
)
</script>
