<template>
  <template v-if="!instrument">
    <FieldRow label="Instrument">
      <PlainSelect v-model="setup.familyId" label="Instrument" :options="families" />
    </FieldRow>
    <FieldRow label="Size">
      <PlainSelect v-model="setup.sizeId" label="Size" :options="sizes" />
    </FieldRow>
  </template>
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed } from 'vue'
import { FAMILY_IDS } from '#core'
import { useBenchStore } from '../../stores/bench'
import { FAMILY_NAMES, sizeName } from '../../words/trade'
import PlainSelect from '../shell/PlainSelect.vue'
import FieldRow from '../shell/FieldRow.vue'

/** Which instrument is looked at, where none lies on the bench. */
const store = useBenchStore()
const { setup } = storeToRefs(store)
const instrument = computed(() => store.instrument)
const families = FAMILY_IDS.map((id) => ({ value: id, label: FAMILY_NAMES[id] }))
const sizes = computed(() =>
  store.bench.family.value.sizes.map(({ id }) => ({ value: id, label: sizeName(id) })),
)
</script>
