<template>
  <template v-if="settings && session">
    <header class="page-head">
      <h1>Studio</h1>
      <p class="whose" dir="auto">{{ session.studio.name }}</p>
      <div class="actions">
        <ElButton v-if="session.user.role === 'owner'" @click="router.push({ name: 'people' })"
          >Who teaches here<KeyHint of="w" on-button
        /></ElButton>
        <ElButton @click="router.push({ name: 'drawings' })"
          >All drawings<KeyHint of="d" on-button
        /></ElButton>
      </div>
    </header>
    <p v-if="failure" class="fault" role="alert">{{ failure }}</p>
    <section class="card" aria-label="Schools">
      <div class="head">
        <h2>How you teach</h2>
        <p class="soft">For every student, unless the student’s own record says otherwise.</p>
      </div>
      <SchoolFields
        :questions="SCHOOL_QUESTION_IDS"
        :chosen="settings.schools"
        :schools="store.schoolsOf()"
        :usual="asUsual"
        @choose="chooseSchool"
      />
      <div class="fields">
        <FieldRow label="Tune by">
          <PlainSelect
            label="Tune by"
            :options="systems"
            :model-value="session.studio.system"
            @update:model-value="(system) => save({ system })"
          />
        </FieldRow>
      </div>
      <p v-for="conflict in conflicts" :key="conflict.code" class="conflict">
        {{ CONFLICT_WORDS[conflict.code] }}
      </p>
    </section>
    <div class="two">
      <section class="card" aria-label="Levels and intervals">
        <h2>In tune within</h2>
        <div class="fields">
          <NumberField
            v-for="level in LEVELS"
            :key="level"
            :label="LEVEL_NAMES[level]"
            :value="settings.tolerances[level]"
            :min="3"
            :max="40"
            @change="(cents) => setTolerance(level, cents)"
          />
        </div>
        <p class="soft">Cents. Ears notice from about 5. Who has a tolerance of their own keeps it.</p>
        <VerdictCounts />
        <h2>Look again after</h2>
        <div class="fields">
          <NumberField
            v-for="one in INTERVALS"
            :key="one.id"
            :label="one.label"
            :value="Math.round(settings.intervals[one.id] / 7)"
            :min="1"
            :max="110"
            @change="(weeks) => setWeeks(one.id, weeks)"
          />
        </div>
        <p class="soft">Weeks. Today tells what is due by these.</p>
      </section>
      <section class="card" aria-label="Sound and writing">
        <h2>Sound and writing</h2>
        <div class="fields">
          <NumberField
            label="A, in Hz"
            :value="settings.a4Hz"
            :min="390"
            :max="470"
            @change="(a4Hz) => set({ a4Hz })"
          />
          <FieldRow v-for="choice in choices" :key="choice.label" :label="choice.label">
            <PlainSelect
              :label="choice.label"
              :options="choice.options"
              :model-value="choice.value"
              @update:model-value="choice.set"
            />
          </FieldRow>
        </div>
        <StoredSound :keeps="settings.keepsSound" :set="(keepsSound) => set({ keepsSound })" />
        <p class="example">
          {{ noteLabel(note('B♭3')) }}, {{ noteLabel(note('B3')) }}, {{ noteLabel(note('F♯4')) }} ·
          {{ length(31.6) }}, {{ length(328) }}
        </p>
        <p class="soft">
          What is typed without a unit is millimetres; 32.8 cm and 12 7/8 in are read as well. Keep tones in
          headphones quiet.
        </p>
        <RetentionFields :retention="settings.retention" :set="(retention) => set({ retention })" />
      </section>
    </div>
    <section class="card block" aria-label="Exercises of your own">
      <div class="head">
        <h2>Exercises of your own</h2>
        <p class="soft">Given by the planner, on the sheet and in the log like the others.</p>
      </div>
      <OwnExercises />
    </section>
    <section class="card block" aria-label="Setup items">
      <div class="head">
        <h2>What a setup round asks</h2>
        <p class="soft">The first “no” ends it, so causes come before what follows from them.</p>
      </div>
      <SetupItems :arrangement="settings.setup" @change="changeSetup" />
    </section>
  </template>
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import {
  FAMILY_IDS,
  note,
  SCHOOL_QUESTION_IDS,
  schoolConflicts,
  USUAL_SCHOOLS,
  type SchoolQuestion,
} from '#core'
import { QUIET_LOUDNESS, type Level, type StudioSettings } from '#contracts'
import OwnExercises from '../features/plan/OwnExercises.vue'
import SchoolFields from '../features/setup/SchoolFields.vue'
import RetentionFields from '../features/studio/RetentionFields.vue'
import SetupItems from '../features/studio/SetupItems.vue'
import StoredSound from '../features/studio/StoredSound.vue'
import VerdictCounts from '../features/studio/VerdictCounts.vue'
import { useSession } from '../stores/session'
import { useSettings, type StudioEdit } from '../stores/settings'
import FieldRow from '../ui/FieldRow.vue'
import KeyHint from '../ui/KeyHint.vue'
import NumberField from '../ui/NumberField.vue'
import PlainSelect from '../ui/PlainSelect.vue'
import { useShortcuts } from '../ui/useShortcuts'
import { noteLabel } from '../words/notes'
import { length } from '../words/numbers'
import { CONFLICT_WORDS, schoolWords } from '../words/schools'
import { LEVEL_NAMES, shortSystemName } from '../words/trade'

const router = useRouter()
const { session } = storeToRefs(useSession())
const store = useSettings()
const { settings } = storeToRefs(store)
const failure = ref('')

const LEVELS: readonly Level[] = ['beginner', 'growing', 'trained']
const INTERVALS = [
  { id: 'remeasureDays', label: 'A measured length' },
  { id: 'checkHandDays', label: 'A check of the hand' },
  { id: 'seenDays', label: 'Tapes' },
  { id: 'warmHandsDays', label: 'Tapes under warm hands' },
  { id: 'tryWithoutDays', label: 'Trying without tapes' },
] as const
const LOUDNESS = [
  { value: 0.03, label: 'Very quiet' },
  { value: QUIET_LOUDNESS, label: 'Quiet' },
  { value: 0.12, label: 'Middling' },
  { value: 0.2, label: 'Loud' },
]
const UNITS = [
  { value: 'mm' as const, label: 'Millimetres' },
  { value: 'cm' as const, label: 'Centimetres' },
  { value: 'in' as const, label: 'Inches, in fractions' },
]
const NOTE_NAMES = [
  { value: 'letters' as const, label: 'Letters: B♭, B' },
  { value: 'german' as const, label: 'German: B, H' },
  { value: 'fixed_do' as const, label: 'Fixed do: Si♭, Si' },
]
const BASS_POSITIONS = [
  { value: 'numerals' as const, label: 'half, I, II, II½, III' },
  { value: 'semitones' as const, label: 'By the semitone under 1' },
]
const FACINGS = [
  { value: 'player' as const, label: 'As the player sees it' },
  { value: 'facing' as const, label: 'From the front' },
]
const TURNS = [
  { value: 'auto' as const, label: 'Upright for cello and bass' },
  { value: 'lying' as const, label: 'Always lying' },
  { value: 'upright' as const, label: 'Always upright' },
]
const TIME_ZONES = Intl.supportedValuesOf('timeZone').map((value) => ({
  value,
  label: value.replaceAll('_', ' '),
}))
const PAPERS = [
  { value: 'a4' as const, label: 'A4' },
  { value: 'letter' as const, label: 'Letter' },
]
/** The nearest of the few that are offered to whatever was set. */
function nearestLoudness(loudness: number): number {
  const off = ({ value }: { value: number }) => Math.abs(value - loudness)
  return LOUDNESS.reduce((a, b) => (off(b) < off(a) ? b : a)).value
}
interface Choice {
  readonly label: string
  readonly options: readonly { readonly value: string | number; readonly label: string }[]
  readonly value: string | number
  readonly set: (value: string | number) => Promise<void>
}
/** One of a few, each kept at once. */
const choices = computed<Choice[]>(() => {
  const now = settings.value
  if (!now) return []
  const zone = now.timeZone ?? new Intl.DateTimeFormat().resolvedOptions().timeZone
  const choice = <K extends 'lengthUnit' | 'noteNames' | 'bassPositions' | 'boardTurned' | 'paper'>(
    label: string,
    key: K,
    options: readonly { readonly value: StudioSettings[K]; readonly label: string }[],
  ): Choice => ({
    label,
    options,
    value: now[key],
    set: (value) => set({ [key]: value as StudioSettings[K] }),
  })
  return [
    {
      label: 'Loudness of tones',
      options: LOUDNESS,
      value: nearestLoudness(now.loudness),
      set: (loudness) => set({ loudness: Number(loudness) }),
    },
    choice('Lengths in', 'lengthUnit', UNITS),
    choice('Names of notes', 'noteNames', NOTE_NAMES),
    choice('Positions of a bass', 'bassPositions', BASS_POSITIONS),
    {
      label: 'The board is seen',
      options: FACINGS,
      value: now.boardFacing ? 'facing' : 'player',
      set: (view) => set({ boardFacing: view === 'facing' }),
    },
    choice('The board in Tapes and Patterns', 'boardTurned', TURNS),
    choice('Paper', 'paper', PAPERS),
    {
      label: 'Days are those of',
      options: TIME_ZONES.some(({ value }) => value === zone)
        ? TIME_ZONES
        : [{ value: zone, label: zone }, ...TIME_ZONES],
      value: zone,
      set: (timeZone) => set({ timeZone: String(timeZone) }),
    },
  ]
})
const systems = computed(() =>
  [...new Set(['fifths', 'equal', session.value?.studio.system ?? 'fifths'])].map((value) => ({
    value,
    label: shortSystemName(value),
  })),
)
const conflicts = computed(() => {
  const facts = { isTunedByRing: session.value?.studio.system === 'fifths' }
  const all = FAMILY_IDS.flatMap((family) => schoolConflicts(family, store.schoolsOf(), facts))
  return [...new Map(all.map((one) => [one.code, one])).values()]
})

function asUsual(question: SchoolQuestion): string {
  return `As usual: ${schoolWords(question, USUAL_SCHOOLS[question]).name}`
}

async function save(edit: StudioEdit) {
  failure.value = ''
  try {
    await store.change(edit)
  } catch (error) {
    failure.value = error instanceof Error ? error.message : 'It was not saved: try again.'
  }
}
const set = (values: Partial<StudioSettings>) => save({ settings: (now) => ({ ...now, ...values }) })

const chooseSchool = (question: SchoolQuestion, choice: string | undefined) =>
  save({
    settings: (now) => {
      const { [question]: _, ...others } = now.schools
      return { ...now, schools: choice === undefined ? others : { ...others, [question]: choice } }
    },
  })
const setTolerance = (level: Level, cents: number) =>
  save({ settings: (now) => ({ ...now, tolerances: { ...now.tolerances, [level]: cents } }) })
const setWeeks = (id: keyof StudioSettings['intervals'], weeks: number) =>
  save({ settings: (now) => ({ ...now, intervals: { ...now.intervals, [id]: weeks * 7 } }) })
const changeSetup = (edit: (now: StudioSettings['setup']) => StudioSettings['setup']) =>
  save({ settings: (now) => ({ ...now, setup: edit(now.setup) }) })

useShortcuts('Studio', [
  {
    key: 'w',
    does: 'Who teaches here, and who saw and changed what',
    run: () => void (session.value?.user.role === 'owner' && router.push({ name: 'people' })),
  },
  { key: 'd', does: 'All drawings of the setup', run: () => void router.push({ name: 'drawings' }) },
])
</script>

<style scoped>
.card {
  display: grid;
  align-content: start;
  gap: 12px;
}

.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 16px;
}

h2 {
  font-size: 21px;
}

.block + .block {
  margin-top: var(--gap);
}

.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--gap);
  margin: var(--gap) 0;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(148px, 1fr));
  gap: 12px 18px;
}

.example {
  font: 500 19px/1.3 var(--font-title);
}

.conflict {
  padding: 8px 14px;
  border-left: 4px solid var(--brass);
  background: var(--brass-wash);
  color: var(--brass-ink);
}

@media (width <= 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
