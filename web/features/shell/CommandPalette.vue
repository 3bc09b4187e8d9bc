<template>
  <QuickDialog v-model="open" label="Find">
    <PickList
      id="palette"
      v-slot="{ row }"
      v-model="text"
      label="Find a room, a student or an action"
      list-label="Found"
      placeholder="A room, a student, an action…"
      :rows="found"
      :key-of="(command) => command.id"
      @pick="run"
    >
      <span class="row">
        <span>{{ row.title }}</span>
        <span class="soft">{{ row.hint }}</span>
      </span>
    </PickList>
    <p v-if="found.length === 0" class="soft none">Nothing is called that. Try part of a name.</p>
  </QuickDialog>
</template>

<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { plainFractions } from '#core'
import PickList from '../../ui/PickList.vue'
import QuickDialog from '../../ui/QuickDialog.vue'
import { useSettled } from '../../ui/useSettled'
import { keyCommand, lookFor, useCommands, type Command } from './useCommands'

const SHOWN = 9

const open = defineModel<boolean>({ required: true })
const router = useRouter()
const commands = useCommands()
const text = ref('')

const found = computed(() => {
  const typed = plainFractions(text.value).toLowerCase().trim()
  const words = typed.split(/\s+/).filter(Boolean)
  const key = keyCommand(text.value.trim(), router.push)
  const named = commands.value
    .map((command) => ({ command, title: command.title.toLowerCase() }))
    .filter(({ command, title }) => {
      // A size is looked for as it is written anywhere: 1/2 or ½.
      const said = plainFractions(`${title} ${command.kind ?? ''}`).toLowerCase()
      return words.every((word) => said.includes(word))
    })
    .sort((a, b) => rank(b.title, typed, words[0]) - rank(a.title, typed, words[0]))
    .map(({ command }) => command)
    .slice(0, key ? SHOWN - 1 : SHOWN)
  return key ? [...named, key] : named
})
// What is not found now, or not while the server is away, is found in its room.
watch(useSettled(text), (typed) => void lookFor(typed).catch(() => undefined))
watch(open, () => (text.value = ''))

/** What is called so, as no. 7 is for 7, before what has a word that begins so, before what has it anywhere. */
function rank(title: string, typed: string, word = ''): number {
  if (title === typed || title.split(/[\s.#]+/).includes(typed)) return 2
  return Number(title.split(' ').some((one) => one.startsWith(word)))
}

function run(command: Command) {
  open.value = false
  void command.run()
}
</script>

<style scoped>
.row {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  padding: 9px 12px;
  font-size: 16px;
}

.none {
  padding: 12px;
}
</style>
