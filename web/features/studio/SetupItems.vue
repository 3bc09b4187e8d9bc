<template>
  <div class="top">
    <ElSegmented v-model="family" :options="families" aria-label="Family" />
    <ElButton @click="begin(undefined)">Add an item</ElButton>
  </div>
  <ol>
    <li v-for="(item, index) in items" :key="item.id" :class="{ hidden: isHidden(item.id) }">
      <span class="numbers soft">{{ index + 1 }}</span>
      <span class="name" dir="auto">{{ setupName(item.id, item.own?.question) }}</span>
      <span v-if="item.own" class="soft">your own</span>
      <span v-else-if="isHidden(item.id)" class="soft">not asked</span>
      <span v-else />
      <span class="acts">
        <template v-if="item.id !== ALWAYS_FIRST">
          <ElButton
            text
            :disabled="index < 2"
            :aria-label="`Ask ${setupName(item.id, item.own?.question)} earlier`"
            @click="move(index, -1)"
            >↑</ElButton
          >
          <ElButton
            text
            :disabled="index === items.length - 1"
            :aria-label="`Ask ${setupName(item.id, item.own?.question)} later`"
            @click="move(index, 1)"
            >↓</ElButton
          >
          <ElButton v-if="item.own" text @click="begin(item.own)">Change</ElButton>
          <ElButton v-if="item.own" text @click="remove(item.own)">Remove</ElButton>
          <ElButton v-else text @click="toggle(item.id)">{{
            isHidden(item.id) ? 'Ask again' : 'Leave out'
          }}</ElButton>
        </template>
        <span v-else class="soft">always first</span>
      </span>
    </li>
  </ol>
  <p>
    <ElButton v-if="isArranged" text @click="edit(() => ({ order: [], hidden: [], own: setup.own }))"
      >The usual order again, nothing left out</ElButton
    >
  </p>
  <QuickDialog v-model="isOpen" label="An item of the studio’s own">
    <form class="own" @submit.prevent="save">
      <h2>{{ draft.id ? 'Change the item' : 'An item of your own' }}</h2>
      <FieldRow
        v-for="field in FIELDS"
        :key="field.id"
        v-slot="{ id }"
        :label="field.label"
        :fault="faults[field.id]"
      >
        <ElInput
          :id="id"
          v-model="draft[field.id]"
          :maxlength="field.id === 'question' ? 160 : 300"
          dir="auto"
        />
      </FieldRow>
      <FieldRow label="Asked of" :fault="faults['families']">
        <ElCheckboxGroup v-model="draft.families" aria-label="Families">
          <ElCheckbox v-for="one in families" :key="one.value" :value="one.value">{{ one.label }}</ElCheckbox>
        </ElCheckboxGroup>
      </FieldRow>
      <div>
        <ElButton type="primary" native-type="submit">Keep the item</ElButton>
        <ElButton @click="isOpen = false">Leave it</ElButton>
      </div>
    </form>
  </QuickDialog>
</template>

<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, reactive, ref } from 'vue'
import {
  arrangedItems,
  ALWAYS_FIRST,
  FAMILY_IDS,
  USUAL_ARRANGEMENT,
  type FamilyId,
  type SetupArrangement,
} from '#core'
import type { OwnSetupItem, StudioSettings } from '#contracts'
import FieldRow from '../../ui/FieldRow.vue'
import QuickDialog from '../../ui/QuickDialog.vue'
import { setupName } from '../../words/setup-names'
import { FAMILY_NAMES } from '../../words/trade'

/** What is asked in a setup round, and in which order: the tool’s items, and the studio’s own. */
const props = defineProps<{ arrangement: StudioSettings['setup'] | undefined }>()
const emit = defineEmits<{ change: [edit: (now: StudioSettings['setup']) => StudioSettings['setup']] }>()

const FIELDS = [
  { id: 'question', label: 'The question, as asked beside a child' },
  { id: 'reason', label: 'Why it matters' },
  { id: 'right', label: 'What right looks like' },
  { id: 'wrong', label: 'The usual wrong' },
  { id: 'change', label: 'What to change' },
  { id: 'test', label: 'How to test it' },
] as const

const families = FAMILY_IDS.map((value) => ({ value, label: FAMILY_NAMES[value] }))
const family = ref<FamilyId>('violin')
const setup = computed<SetupArrangement>(() => props.arrangement ?? USUAL_ARRANGEMENT)
const items = computed(() => arrangedItems(family.value, setup.value))
const isHidden = (id: string) => setup.value.hidden.includes(id)
const isArranged = computed(() => setup.value.order.length > 0 || setup.value.hidden.length > 0)

function edit(change: (now: SetupArrangement) => SetupArrangement) {
  emit('change', (now) => {
    const { order, hidden, own } = change(now)
    return { order: [...order], hidden: [...hidden], own: own as OwnSetupItem[] }
  })
}

/** The order of this family is said whole; those of the others stay, since each names its own items. */
function move(index: number, by: -1 | 1) {
  const ids = items.value.map(({ id }) => id)
  const [moved] = ids.splice(index, 1)
  if (moved === undefined) return
  ids.splice(index + by, 0, moved)
  const own = ids.slice(1)
  edit((now) => ({ ...now, order: [...now.order.filter((id) => !own.includes(id)), ...own] }))
}

function toggle(id: string) {
  edit((now) => ({
    ...now,
    hidden: now.hidden.includes(id) ? now.hidden.filter((one) => one !== id) : [...now.hidden, id],
  }))
}

const isOpen = ref(false)
const NEW = { id: '', question: '', reason: '', right: '', wrong: '', change: '', test: '' }
const draft = reactive<Omit<OwnSetupItem, 'families'> & { families: FamilyId[] }>({ ...NEW, families: [] })
const isTried = ref(false)
const faults = computed<Record<string, string | undefined>>(() =>
  isTried.value
    ? {
        question: draft.question.trim() === '' ? 'Give the question.' : undefined,
        reason: draft.reason.trim() === '' ? 'Give the reason: in a year nobody remembers it.' : undefined,
        families: draft.families.length === 0 ? 'Choose at least one family.' : undefined,
      }
    : {},
)

function begin(item: SetupArrangement['own'][number] | undefined) {
  isTried.value = false
  Object.assign(draft, NEW, item, { families: [...(item?.families ?? [family.value])] })
  isOpen.value = true
}

function save() {
  isTried.value = true
  if (Object.values(faults.value).some(Boolean)) return
  const kept: OwnSetupItem = {
    ...draft,
    families: [...draft.families],
    id: draft.id || `own-${uuid().slice(0, 8)}`,
  }
  edit((now) => ({
    ...now,
    own: now.own.some(({ id }) => id === kept.id)
      ? now.own.map((one) => (one.id === kept.id ? kept : one))
      : [...now.own, kept],
  }))
  isOpen.value = false
}

function remove({ id }: SetupArrangement['own'][number]) {
  edit((now) => ({
    order: now.order.filter((one) => one !== id),
    hidden: now.hidden.filter((one) => one !== id),
    own: now.own.filter((one) => one.id !== id),
  }))
}
</script>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  justify-content: space-between;
}

ol {
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
  columns: 2;
  column-gap: 28px;
}

li {
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr) auto auto;
  align-items: center;
  gap: 8px;
  min-height: 38px;
  border-bottom: 1px solid var(--line);
  break-inside: avoid;
}

.hidden .name {
  color: var(--ink-soft);
  text-decoration: line-through;
}

.name {
  font-weight: 600;
  overflow-wrap: anywhere;
}

.acts {
  display: flex;
  align-items: center;
}

.acts :deep(.el-button) {
  margin: 0;
  padding: 6px 8px;
}

.own {
  display: grid;
  gap: 10px;
}

.own h2 {
  font-size: 22px;
}

@media (width <= 1100px) {
  ol {
    columns: 1;
  }
}
</style>
