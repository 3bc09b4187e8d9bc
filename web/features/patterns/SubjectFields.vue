<template>
  <template v-if="!instrument">
    <FieldRow label="Instrument">
      <PlainSelect v-model="familyId" label="Instrument" :options="families" />
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
import { useBench } from '../../stores/bench'
import { FAMILY_NAMES, sizeName } from '../../words/trade'
import PlainSelect from '../../ui/PlainSelect.vue'
import FieldRow from '../../ui/FieldRow.vue'

/** Which instrument is looked at, where none lies on the bench. */
const bench = useBench()
const { setup, instrument } = storeToRefs(bench)
const familyId = computed({ get: () => setup.value.familyId, set: (id) => bench.chooseFamily(id) })
const families = FAMILY_IDS.map((id) => ({ value: id, label: FAMILY_NAMES[id] }))
const sizes = computed(() => bench.family.sizes.map(({ id }) => ({ value: id, label: sizeName(id) })))
</script>
