<template>
  <div class="shell">
    <a class="skip visually-hidden" href="#room">Skip to the page</a>
    <nav class="rail" :class="{ open: isMenuOpen }" aria-label="Rooms">
      <button
        class="menu"
        type="button"
        :aria-label="`Rooms: ${isMenuOpen ? 'Close' : here}`"
        :aria-expanded="isMenuOpen"
        @click="isMenuOpen = !isMenuOpen"
      >
        {{ isMenuOpen ? 'Close' : here
        }}<span class="arrow" aria-hidden="true">{{ isMenuOpen ? '×' : '▾' }}</span>
      </button>
      <RouterLink class="name" :to="{ name: 'today' }">Jadefell</RouterLink>
      <FromDevice />
      <p v-if="newer.isNewer.value" class="newer" role="status">
        A newer Jadefell is here. What you typed stays.
        <button type="button" @click="reload">Load it</button>
      </p>
      <ul class="rooms">
        <li v-for="(room, index) in ROOMS" :key="room.name">
          <RouterLink :to="{ name: room.name }" :class="{ here: isHere(room.name) }">
            <span>{{ room.title }}</span>
            <KeyHint class="key" :of="String(index + 1)" aria-hidden="true" />
          </RouterLink>
        </li>
      </ul>
      <OutboxNote />
      <button class="find" type="button" @click="paletteOpen = true">
        <span>Find</span><span class="key" aria-hidden="true">Ctrl K</span>
      </button>
      <button class="find keys" type="button" @click="keysOpen = true">
        <span>Keys</span><KeyHint class="key" of="?" aria-hidden="true" />
      </button>
      <AccountMenu />
      <div class="lesson" :class="{ empty: !lesson.student }" aria-live="polite">
        <template v-if="lesson.student">
          <span class="label in">In the lesson</span>
          <RouterLink class="who" :to="{ name: 'student', params: { studentId: lesson.student.id } }">
            {{ lesson.student.name }}
          </RouterLink>
          <span v-if="lesson.student.instrument" class="label">
            {{ instrumentKind(lesson.student.instrument.family, lesson.student.instrument.sizeId) }} ·
            {{ lesson.student.instrument.label }}
          </span>
          <slot name="lesson" />
        </template>
        <span v-else class="label">Nobody in the lesson</span>
      </div>
    </nav>
    <main id="room" tabindex="-1">
      <slot />
    </main>
    <CommandPalette v-model="paletteOpen" />
    <KeysHelp v-model="keysOpen" />
    <RefusedKey />
  </div>
</template>

<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { LONGEST_PAGE } from '#contracts'
import { ROOMS } from '../../rooms'
import { useLesson } from '../../stores/lesson'
import { useSettings } from '../../stores/settings'
import { useStudio } from '../../stores/studio'
import { instrumentKind } from '../../words/trade'
import AccountMenu from './AccountMenu.vue'
import CommandPalette from './CommandPalette.vue'
import FromDevice from './FromDevice.vue'
import KeysHelp from './KeysHelp.vue'
import OutboxNote from './OutboxNote.vue'
import KeyHint from '../../ui/KeyHint.vue'
import RefusedKey from './RefusedKey.vue'
import { useShortcuts } from '../../ui/useShortcuts'
import { useNewerVersion } from './useNewerVersion'

const route = useRoute()
const router = useRouter()
const lesson = useLesson()
const studio = useStudio()
/** Once the first page has settled. */
const PREFETCH_AFTER_MS = 300

const paletteOpen = ref(false)
const keysOpen = ref(false)

const newer = useNewerVersion()
const reload = () => window.location.reload()

const settings = useSettings()
/** A studio has its days where it is: the first browser that comes tells in which time zone. */
watch(
  () => settings.settings?.timeZone,
  (zone) => {
    const { timeZone } = new Intl.DateTimeFormat().resolvedOptions()
    // Where it is not taken now, the next page that is opened tells it.
    if (zone === null && timeZone)
      void settings.change({ settings: (now) => ({ ...now, timeZone }) }).catch(() => undefined)
  },
  { immediate: true },
)

onMounted(() => {
  // The palette knows a studio of usual size from the start; of a larger one it asks.
  void studio.findStudents({ limit: LONGEST_PAGE })
  // Pages are fetched before they are asked for, those of a lesson first: a room opens at its key.
  window.setTimeout(() => void fetchPages().then(readAhead), PREFETCH_AFTER_MS)
})

/** Brings every page without going there, one after the other: what is asked for meanwhile comes between. */
async function fetchPages() {
  const routes = router.getRoutes().sort((a, b) => urgency(b.name) - urgency(a.name))
  for (const { components } of routes) {
    const page = components?.['default']
    // One that does not come now is fetched when it is asked for.
    if (typeof page === 'function') await (page as () => Promise<unknown>)().catch(() => undefined)
  }
}
/** By what comes after the pages themselves; where it does not, another time. */
async function readAhead() {
  const ahead = await import('./useAhead').catch(() => undefined)
  await ahead?.useAhead().readAhead()
}
const urgency = (name: unknown) => [undefined, 'tapes', 'student', 'check'].indexOf(name as string)
useEventListener(document, 'keydown', (event: KeyboardEvent) => {
  if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'k') return
  event.preventDefault()
  paletteOpen.value = !paletteOpen.value
})
// A recording that is dropped beside its strip is not opened in the place of the page.
for (const kind of ['dragover', 'drop'] as const)
  useEventListener(document, kind, (event: DragEvent) => {
    if (event.dataTransfer?.types.includes('Files')) event.preventDefault()
  })
useShortcuts('Everywhere', [
  ...ROOMS.map((room, index) => ({
    key: String(index + 1),
    does: room.title,
    run: () => void router.push({ name: room.name }),
  })),
  { key: '?', does: 'This list of keys', run: () => (keysOpen.value = true) },
])

/** On a phone the rooms stand behind one button, which says where one is. */
const isMenuOpen = ref(false)
watch(
  () => route.fullPath,
  () => (isMenuOpen.value = false),
)
const here = computed(() => ROOMS.find(({ name }) => isHere(name))?.title ?? 'Rooms')

function isHere(name: string): boolean {
  return route.name === name || route.meta['room'] === name
}
</script>

<style scoped>
.newer {
  margin: 0 14px 10px 20px;
  color: var(--rail-brass);
  font-size: 14.5px;
  line-height: 1.3;
}

.newer button {
  border: 0;
  padding: 2px 0;
  background: none;
  color: inherit;
  font: 600 15px var(--font-text);
  text-decoration: underline;
  cursor: pointer;
}

.shell {
  display: grid;
  grid-template-columns: 196px minmax(0, 1fr);
  min-height: 100%;
}

.skip:focus {
  position: fixed;
  z-index: 10;
  inset: 8px auto auto 8px;
  width: auto;
  height: auto;
  clip-path: none;
  padding: 8px 12px;
  background: var(--card);
}

.rail {
  position: sticky;
  top: 0;
  display: flex;
  flex-direction: column;
  height: 100vh;
  background: var(--rail);
  color: var(--rail-ink);
}

.rail a {
  color: inherit;
  text-decoration: none;
}

.name {
  font: 600 26px/1 var(--font-title);
  padding: 18px 20px 16px;
}

.menu {
  display: none;
}

.arrow {
  margin-left: 6px;
}

ul {
  list-style: none;
  margin: 0 0 auto;
  padding: 0;
}

li a,
.find {
  display: flex;
  justify-content: space-between;
  align-items: center;
  width: 100%;
  padding: 9px 20px 9px 17px;
  border: 0;
  border-left: 3px solid transparent;
  background: none;
  color: var(--rail-ink);
  font: inherit;
  cursor: pointer;
}

li a:hover,
.find:hover {
  background: color-mix(in srgb, var(--rail-lit) 55%, transparent);
}

li a.here {
  background: var(--rail-lit);
  border-left-color: var(--rail-brass);
  font-weight: 600;
}

.key,
.label {
  color: var(--rail-soft);
  font-size: 13.5px;
}

/* On the lit row the soft ink would be too faint. */
.here .key {
  color: var(--rail-ink);
}

kbd.key {
  border: 0;
  padding: 0;
  background: none;
  font-weight: 400;
}

.lesson {
  display: flex;
  flex-direction: column;
  gap: 2px;
  min-height: 92px;
  margin-top: 10px;
  padding: 14px 20px;
  border-top: 1px solid var(--rail-lit);
  overflow-wrap: anywhere;
}

.who {
  font: 600 18px/1.25 var(--font-title);
}

main {
  min-width: 0;
  padding: 18px 26px 26px;
}

main:focus {
  outline: none;
}

@media (width <= 900px) {
  .shell {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto 1fr;
  }

  .rail {
    flex-flow: row wrap;
    align-items: center;
    height: auto;
    z-index: 5;
  }

  .name {
    padding: 12px 14px;
    font-size: 21px;
  }

  ul {
    display: flex;
    margin: 0 auto 0 0;
  }

  .newer {
    flex: 1 0 100%;
    order: 3;
    margin: 0;
    padding: 4px 14px 8px;
  }

  li a {
    padding: 13px 8px;
    border-left: 0;
    border-bottom: 3px solid transparent;
  }

  li a.here {
    border-bottom-color: var(--rail-brass);
  }

  .find {
    width: auto;
    padding: 12px;
  }

  .key,
  .in,
  .lesson.empty,
  .lesson :deep(.else .key) {
    display: none;
  }

  /* Who is in the lesson: a line of its own below the rooms. */
  .lesson {
    flex: 1 0 70%;
    flex-direction: row;
    align-items: baseline;
    gap: 10px;
    min-height: 0;
    margin: 0;
    padding: 6px 14px;
    white-space: nowrap;
    overflow: hidden;
  }

  .who {
    font-size: 16px;
  }

  main {
    padding: 14px 16px 20px;
  }
}

/* A phone: rooms behind one button, and who is in the lesson, in one line. */
@media (width <= 560px) {
  .rail {
    flex-wrap: nowrap;
    min-height: 48px;
  }

  .rail.open {
    flex-wrap: wrap;
  }

  .name,
  .keys,
  .rail:not(.open) .rooms,
  .rail:not(.open) .newer,
  .rail:not(.open) :deep(.account),
  .rail:not(.open) .lesson :deep(.else),
  .in {
    display: none;
  }

  .menu {
    display: block;
    flex: none;
    padding: 12px 14px;
    border: 0;
    background: none;
    color: var(--rail-ink);
    font: 600 16px var(--font-text);
    cursor: pointer;
  }

  .lesson {
    flex: 1 1 0;
    order: 1;
    min-width: 0;
    padding: 6px 4px;
    border: 0;
  }

  .lesson .who,
  .lesson .label {
    overflow: hidden;
    text-overflow: ellipsis;
  }

  .lesson .who {
    flex: none;
  }

  .find {
    order: 2;
    margin-left: auto;
    padding: 12px 14px;
    font-size: 16px;
  }

  ul {
    order: 3;
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    flex: 1 0 100%;
    border-top: 1px solid var(--rail-lit);
  }

  .rail :deep(.account) {
    order: 4;
  }

  li a {
    padding: 13px 14px;
    font-size: 16px;
  }
}
</style>
