<template>
  <QuickDialog v-model="open" label="Find">
    <label class="visually-hidden" for="palette-field">Find a room, a student or an action</label>
    <input
      id="palette-field"
      v-model="text"
      class="field"
      autofocus
      placeholder="A room, a student, an action…"
      autocomplete="off"
      role="combobox"
      aria-expanded="true"
      aria-controls="palette-list"
      :aria-activedescendant="found.length ? `palette-${at}` : undefined"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="run(found[at])"
    />
    <ul id="palette-list" role="listbox" aria-label="Found">
      <li
        v-for="(command, index) in found"
        :id="`palette-${index}`"
        :key="command.id"
        role="option"
        :aria-selected="index === at"
        :class="{ at: index === at }"
        @mousemove="at = index"
        @click="run(command)"
      >
        <span>{{ command.title }}</span>
        <span class="soft">{{ command.hint }}</span>
      </li>
    </ul>
    <p v-if="found.length === 0" class="soft none">Nothing is called that. Try part of a name.</p>
  </QuickDialog>
</template>

<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { plainFractions } from '#core'
import QuickDialog from '../../ui/QuickDialog.vue'
import { useSettled } from '../../ui/useSettled'
import { lookFor, useCommands, type Command } from './useCommands'

const SHOWN = 9

const open = defineModel<boolean>({ required: true })
const commands = useCommands()
const text = ref('')
const at = ref(0)

const found = computed(() => {
  const typed = plainFractions(text.value).toLowerCase().trim()
  const words = typed.split(/\s+/).filter(Boolean)
  return commands.value
    .map((command) => ({ command, title: command.title.toLowerCase() }))
    .filter(({ command, title }) => {
      // A size is looked for as it is written anywhere: 1/2 or ½.
      const said = plainFractions(`${title} ${command.kind ?? ''}`).toLowerCase()
      return words.every((word) => said.includes(word))
    })
    .sort((a, b) => rank(b.title, typed, words[0]) - rank(a.title, typed, words[0]))
    .map(({ command }) => command)
    .slice(0, SHOWN)
})
watch(text, () => (at.value = 0))
// What is not found now, or not while the server is away, is found in its room.
watch(useSettled(text), (typed) => void lookFor(typed).catch(() => undefined))
watch(open, () => {
  text.value = ''
  at.value = 0
})

/** What is called so, as no. 7 is for 7, before what has a word that begins so, before what has it anywhere. */
function rank(title: string, typed: string, word = ''): number {
  if (title === typed || title.split(/[\s.#]+/).includes(typed)) return 2
  return Number(title.split(' ').some((one) => one.startsWith(word)))
}

function move(by: number) {
  const n = found.value.length
  if (n > 0) at.value = (at.value + by + n) % n
}

function run(command: Command | undefined) {
  if (!command) return
  open.value = false
  void command.run()
}
</script>

<style scoped>
.field {
  width: 100%;
  border: 0;
  border-bottom: 1px solid var(--line-strong);
  padding: 4px 2px 10px;
  background: none;
  color: var(--ink);
  font: 400 22px/1.3 var(--font-title);
}

.field:focus {
  outline: none;
  border-bottom: 2px solid var(--jade);
}

ul {
  list-style: none;
  margin: 12px 0 0;
  padding: 0;
}

li {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  padding: 9px 12px;
  border-radius: 6px;
  color: var(--ink);
  font-size: 16px;
  cursor: pointer;
}

li.at {
  background: var(--jade-wash);
}

.none {
  padding: 12px;
}
</style>
