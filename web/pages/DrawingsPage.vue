<template>
  <header class="page-head">
    <h1>Drawings</h1>
    <p class="whose">every item of the setup, in the studio’s schools</p>
    <div class="actions">
      <ElSegmented v-model="family" :options="families" aria-label="Family" />
    </div>
  </header>
  <section v-for="{ id, name, right, wrong } in drawn" :key="id" class="item" :aria-label="name">
    <h2>{{ name }}</h2>
    <SetupPicture :figure="right" tone="right" />
    <SetupPicture :figure="wrong" tone="wrong" />
  </section>
</template>

<script setup lang="ts">
import { computed, ref } from 'vue'
import { arrangedItems, isDrawnItem, setupFigure, FAMILY_IDS, type FamilyId } from '#core'
import SetupPicture from '../figure/SetupPicture.vue'
import { useSettings } from '../stores/settings'
import { setupName } from '../words/setup-names'
import { FAMILY_NAMES } from '../words/trade'

const settings = useSettings()
const family = ref<FamilyId>('violin')
const families = FAMILY_IDS.map((value) => ({ value, label: FAMILY_NAMES[value] }))
const drawn = computed(() =>
  arrangedItems(family.value).flatMap(({ id }) => {
    if (!isDrawnItem(id)) return []
    const asked = { schools: settings.schoolsOf(), family: family.value }
    return [
      {
        id,
        name: setupName(id),
        right: setupFigure(id, { ...asked, side: 'right' }),
        wrong: setupFigure(id, { ...asked, side: 'wrong' }),
      },
    ]
  }),
)
</script>

<style scoped>
.item {
  display: grid;
  grid-template: auto 300px / 1fr 1fr;
  gap: 6px var(--gap);
  margin-bottom: 22px;
  content-visibility: auto;
  contain-intrinsic-size: auto 340px;
}

h2 {
  grid-column: 1 / -1;
  font-size: 21px;
}

h2::first-letter {
  text-transform: uppercase;
}
</style>
