<template>
  <QuickDialog v-model="open" label="Keys" wide>
    <h2 tabindex="0" autofocus>Keys</h2>
    <div class="groups">
      <section v-for="group in groups" :key="group.title">
        <h3>{{ group.title }}</h3>
        <dl>
          <template v-for="shortcut in group.shortcuts" :key="shortcut.key">
            <dt>
              <kbd>{{ keyName(shortcut.key) }}</kbd>
            </dt>
            <dd>{{ shortcut.does }}</dd>
          </template>
          <template v-if="group.title === 'Everywhere'">
            <dt><kbd>Ctrl K</kbd></dt>
            <dd>Find a room, a student, an action</dd>
          </template>
        </dl>
      </section>
    </div>
  </QuickDialog>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { keyName } from '../../ui/keyName'
import QuickDialog from '../../ui/QuickDialog.vue'
import { activeShortcuts } from '../../ui/useShortcuts'

const open = defineModel<boolean>({ required: true })
/** Read anew each time the list is opened: every page brings its own keys. */
const groups = computed(() => (open.value ? [...activeShortcuts()].reverse() : []))
</script>

<style scoped>
h2 {
  margin-bottom: 14px;
  font-size: 24px;
}

h2:focus {
  outline: none;
}

.groups {
  columns: 2 280px;
  column-gap: 28px;
}

section {
  break-inside: avoid;
  margin-bottom: 18px;
}

h3 {
  margin-bottom: 6px;
  font-size: 18px;
}

dl {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: 7px 0;
  margin: 0;
}

dd {
  margin: 0;
}
</style>
