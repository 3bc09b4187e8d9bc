<template>
  <NobodyChosen v-if="!isWalkIn && lesson.studentId === ''" room="Check">
    <WithoutStudent @begin="isWalkIn = true" />
  </NobodyChosen>
  <div v-else-if="student || isWalkIn" class="check" :class="{ whole: stringing && !isTrackShown }">
    <header class="page-head">
      <h1>Check</h1>
      <p class="whose">
        <RouterLink v-if="student" :to="{ name: 'student', params: { studentId: student.id } }">{{
          student.name
        }}</RouterLink>
        <template v-else>A walk-in</template>
        <template v-if="kind"> · {{ kind }}</template>
      </p>
      <div class="actions">
        <ElButton v-if="heard.track.value" :aria-pressed="isTrackShown" @click="isTrackShown = !isTrackShown"
          >Note by note<KeyHint of="t" on-button
        /></ElButton>
        <ElButton v-if="canBringBack" @click="bringBack">Bring back<KeyHint of="z" on-button /></ElButton>
        <ElButton
          v-if="!canBringBack || readings.length > 0 || heard.draft.value"
          :disabled="readings.length === 0 && !heard.draft.value"
          @click="clear"
          >Clear</ElButton
        >
        <ElButton v-if="next" type="primary" @click="goOn">
          Next: {{ next.name }}<KeyHint of="n" on-button />
        </ElButton>
        <ElButton
          v-if="student"
          :type="next ? 'default' : 'primary'"
          :disabled="!canKeep"
          :loading="state !== 'idle'"
          @click="keepNow"
        >
          {{ kept ? 'Kept' : state === 'waiting' ? 'Waits to be sent' : 'Keep this verdict'
          }}<kbd v-if="!kept" class="on-button">Ctrl ⏎</kbd>
        </ElButton>
        <template v-else>
          <ElButton @click="isWalkIn = false">Somebody else<KeyHint of="x" on-button /></ElButton>
          <ElButton @click="enrol">Enrol this player</ElButton>
        </template>
      </div>
    </header>
    <PainMarked
      v-if="student?.pains.length"
      :pains="student.pains"
      :student-id="student.id"
      :name="student.name"
    />
    <section v-if="!stringing" class="card empty">
      <h2>
        {{
          instrument || !student ? 'The string is not measured yet' : `${student.name} has no instrument yet`
        }}
      </h2>
      <p v-if="instrument || !student">
        Places follow from the string length:
        <RouterLink :to="{ name: 'tapes' }">measure it at the tape bench</RouterLink>.
      </p>
      <p v-else>
        <RouterLink :to="{ name: 'student', params: { studentId: student.id } }"
          >Lend one from the student’s file</RouterLink
        >.
      </p>
    </section>
    <template v-else>
      <section class="card board">
        <StringBoard
          :stringing="stringing"
          :label="`Fingerboard of ${instrument?.label ?? 'a walk-in'} with the places of the hand and where the fingers landed`"
          :tapes="tapes"
          :targets="boardTargets"
          :landings="landings"
          :active-string="activeString"
          aim-only
          quiet
        />
        <TakePanel
          v-model:track="isTrackShown"
          v-model:shown="shown"
          :heard="heard"
          :key-id="'keyId' in choice.exercise.value.name ? choice.exercise.value.name.keyId : undefined"
          :drone-cents="droneCents"
          :stringing="stringing"
          :tolerance-cents="choice.toleranceCents.value"
          :student="student ?? undefined"
          :strays="take.strays.value"
          :is-idle="Boolean(choice.noPlace.value || choice.fault.value)"
        >
          <ReadBy v-model="sheet.by.value" />
          <template #said>
            <span v-if="tapesCovered" class="chip">Tapes covered</span>
            <span v-if="keepsSound" class="soft">Sound is kept with it</span>
          </template>
          <template #more>
            <ElCheckbox v-if="student && hasTapes" v-model="tapesCovered"
              >Tapes covered <KeyHint of="o"
            /></ElCheckbox>
            <SystemChoice v-model="choice.systemId.value" :tuning="choice.tuning.value" />
            <BoardViews />
          </template>
        </TakePanel>
      </section>
      <div class="below">
        <section class="card sheet" aria-label="Readings">
          <ExerciseFields :chosen="choice">
            <span v-if="proposal && !proposal.isChosen && !student?.pains.length" class="proposal">
              <span>Next: <strong>{{ proposal.name }}</strong>, {{ proposal.why }}.</span>
              <ElButton size="small" @click="accept">Take it<KeyHint of="e" on-button /></ElButton>
            </span>
          </ExerciseFields>
          <p v-if="choice.fault.value" class="fault" role="alert">{{ choice.fault.value }}</p>
          <p v-if="choice.noPlace.value" class="fault" role="alert">{{ choice.noPlace.value }}</p>
          <ReadingSheet
            v-if="sheet.rows.value.length > 0"
            ref="sheetView"
            :by="sheet.by.value"
            :rows="sheet.rows.value"
            :exercise="choice.exercise.value"
            :targets="choice.targets.value"
            :places="take.places.value"
            :tuning="choice.tuning.value"
            :tolerance-cents="choice.toleranceCents.value"
            @type="type"
            @done="keepNow"
          />
        </section>
        <section v-if="isPlaying" class="card" aria-label="Verdict">
          <p class="eyebrow">Verdict</p>
          <h2 class="waiting">It comes when the take ends.</h2>
          <p class="soft">Until then the board shows each finger as it lands.</p>
        </section>
        <VerdictCard
          v-else-if="said"
          tabindex="0"
          :verdict="said"
          :family="choice.family.value.id"
          :note-count="kept?.check.landings.length ?? take.take.value?.landings.length ?? 0"
          :tolerance-cents="choice.toleranceCents.value"
          :student="student"
          :kept="keptWhere"
        >
          <DecisionForm
            v-if="kept"
            :verdict="kept.check.verdict"
            :decision="kept.check.decision"
            :standing="student?.workingOn?.workOn"
            @decide="(draft) => kept && decide(kept.check, draft)"
          />
          <template #foot>
            <EarlierChoice
              v-if="student && hasEarlier"
              v-model="withEarlier"
              :verdict="said"
              :is-kept="kept !== undefined"
            />
          </template>
        </VerdictCard>
      </div>
    </template>
  </div>
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { useEventListener, useSessionStorage } from '@vueuse/core'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { mostOffMm, noteName, type ExpectedNote } from '#core'
import type { KeptVerdict } from '#contracts'
import BoardViews from '../board/BoardViews.vue'
import StringBoard from '../board/StringBoard.vue'
import EarlierChoice from '../features/check/EarlierChoice.vue'
import ReadBy from '../features/check/ReadBy.vue'
import WithoutStudent from '../features/check/WithoutStudent.vue'
import ExerciseFields from '../features/check/ExerciseFields.vue'
import ReadingSheet from '../features/check/ReadingSheet.vue'
import TakePanel from '../features/check/TakePanel.vue'
import { useHeardTake } from '../features/check/useHeardTake'
import { draftExercise, useExercise, useTake, useTakeOnBoard } from '../features/check/useExercise'
import { useEarlier } from '../features/check/useEarlier'
import { useKeepCheck } from '../features/check/useKeepCheck'
import { sheetPlaces, useReadings } from '../features/check/useReadings'
import { useProposal } from '../features/check/useProposal'
import { useNextLesson } from '../features/check/useNextLesson'
import NobodyChosen from '../features/lesson/NobodyChosen.vue'
import PainMarked from '../features/setup/PainMarked.vue'
import VerdictCard from '../features/check/VerdictCard.vue'
import { useBench } from '../stores/bench'
import { useDrafts } from '../stores/drafts'
import { useKeptCheck } from '../stores/kept-check'
import { useNotices } from '../stores/notices'
import { useLesson } from '../stores/lesson'
import { useDecide } from '../stores/useDecide'
import DecisionForm from '../ui/DecisionForm.vue'
import KeyHint from '../ui/KeyHint.vue'
import SystemChoice from '../ui/SystemChoice.vue'
import { useShortcuts } from '../ui/useShortcuts'
import { exerciseName } from '../words/exercises'
import { instrumentKind } from '../words/trade'

const router = useRouter()
const lesson = useLesson()
const { student } = storeToRefs(lesson)
/** Somebody without a file, on what lies on the bench; over a reload, until somebody is in the lesson. */
const isWalkIn = useSessionStorage('jadefell.walk-in', false)
watch(student, (chosen) => chosen && (isWalkIn.value = false))

const bench = useBench()
const choice = useExercise(
  student,
  computed(() => student.value !== undefined || isWalkIn.value),
)
const { instrument, stringing } = choice
/** A hand shape is called as it always was: what lies in drafts is found again. */
const sheetName = computed(() => {
  const { name, notes } = choice.exercise.value
  const of = student.value?.id ?? 'walk-in'
  const open = notes[0]
  return name.kind === 'shape' && open
    ? [of, noteName(open.note), name.shapeId].join(' ')
    : [of, ...Object.values(name)].join(' ')
})
const sheet = useReadings(
  computed(() => sheetPlaces(choice.exercise.value)),
  sheetName,
  computed(() => stringing.value && mostOffMm(stringing.value, 0)),
)
const { readings } = sheet
const heard = useHeardTake({
  stringing,
  exercise: choice.exercise,
  improvised: choice.improvised,
  sheet: sheetName,
})
/** Played without seeing the tapes: how they are outgrown. Said anew for everybody. */
const tapesCovered = ref(false)
const hasTapes = computed(() => (instrument.value?.tapes.length ?? 0) > 0)
watch([() => student.value?.id, hasTapes], () => (tapesCovered.value = false))
const { earlier, hasEarlier, withEarlier } = useEarlier(student)
const isPlaying = computed(() => heard.phase.value !== 'off')
const take = useTake(choice, sheet.judged, heard.landings, heard.line, { tapesCovered, earlier, isPlaying })
/** The note of the take that is pointed at. */
const shown = shallowRef<ExpectedNote>()
watch(heard.landings, () => (shown.value = undefined))
const { boardTargets, tapes, landings } = useTakeOnBoard(choice, take, heard.finger, shown)

/** A drone that goes with the exercise: the string of a hand, the tonic of a scale, else the second string from the top. */
const droneCents = computed(() => {
  const { notes } = choice.exercise.value
  const strings = stringing.value
  if (!strings) return 0
  const string = notes.find((n) => n.finger === 0)?.stringIndex ?? Math.max(0, strings.tuning.length - 2)
  return strings.system.openCentsAboveA4(strings.tuning[string]!)
})
/** The string that sounds, or the one that is played on. */
const activeString = computed(() => {
  const now = shown.value ?? heard.finger.value
  if (now) return now.stringIndex
  const strings = new Set(choice.exercise.value.notes.map((n) => n.stringIndex))
  return strings.size === 1 ? [...strings][0] : undefined
})

/** Kept and not typed over yet: it is read aloud now, on whatever string the next one will be. */
const keptCheck = useKeptCheck()
const { kept } = storeToRefs(keptCheck)
const said = computed(() => (kept.value?.check.verdict ?? take.verdict.value) as KeptVerdict | undefined)
const keptWhere = computed(() => {
  const { exercise } = kept.value?.check ?? {}
  return exercise ? exerciseName(exercise) : undefined
})
const kind = computed(() => {
  if (instrument.value) return instrumentKind(instrument.value.family, instrument.value.sizeId)
  const { familyId, sizeId } = bench.setup
  return student.value ? undefined : instrumentKind(familyId, sizeId)
})

const sheetView = ref<InstanceType<typeof ReadingSheet>>()
watch([() => student.value?.id, () => sheetView.value], () => void nextTick(() => sheetView.value?.begin()), {
  immediate: true,
})

const { state, keep, change, keepsSound } = useKeepCheck(student, sheetName)
const decide = useDecide((saved) => {
  if (kept.value?.check.id === saved.id) keptCheck.show({ ...kept.value, check: saved })
})
const { proposal, accept } = useProposal(student, choice.tuning)
const canKeep = computed(
  () =>
    !isPlaying.value &&
    (readings.value.length > 0 || heard.draft.value !== undefined) &&
    !sheet.hasFault.value,
)

function type(id: string, text: string) {
  change()
  sheet.type(id, text)
}

const drafts = useDrafts()
const notices = useNotices()
/** What was cleared or played over is a key away, also after a reload. */
const canBringBack = computed(() => !isPlaying.value && drafts.hasAside(sheetName.value))
function bringBack() {
  change()
  drafts.bringBack(sheetName.value)
}

function clear() {
  change()
  drafts.setAside(sheetName.value)
  sheet.clear()
  heard.forget()
}

/** As it is sent: the places of a free take go with the exercise. */
const heardDraft = computed(() => {
  if (!heard.draft.value) return null
  const { line: _line, told: _told, ...taken } = heard.draft.value
  return taken
})

async function keepNow() {
  if (!canKeep.value || !student.value || !instrument.value) return
  const of = sheetName.value
  const kept = await keep({
    instrumentId: instrument.value.id,
    takenAt: new Date().toISOString(),
    exercise: draftExercise(heard.line.value, choice.tuning.value),
    system: choice.systemId.value,
    tapesCovered: tapesCovered.value,
    withEarlier: withEarlier.value,
    readings: [...readings.value],
    heard: heardDraft.value,
    sound: heardDraft.value ? heard.sound.value : undefined,
  })
  // Somebody may be on another string by now: the cursor is theirs.
  if (kept && sheetName.value === of) sheetView.value?.begin()
}

const isTrackShown = ref(false)

/** Wherever the cursor is: after a take it is nowhere. */
useEventListener(document, 'keydown', (event) => {
  if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey) || event.defaultPrevented) return
  event.preventDefault()
  void keepNow()
})
const { next, goOn } = useNextLesson()
function enrol() {
  void router.push({ name: 'students', query: { new: '1' } })
}

useShortcuts('Check', [
  { key: 'e', does: 'Take the proposed exercise', run: accept },
  { key: 'r', does: 'Go to the readings', run: () => sheetView.value?.begin() },
  { key: 's', does: 'The setup', run: () => void router.push({ name: 'setup' }) },
  {
    key: 'o',
    does: 'Tapes covered, or not',
    run: () => (tapesCovered.value = hasTapes.value && !tapesCovered.value),
  },
  {
    key: 'z',
    does: 'Undo, or bring back what was cleared or played over',
    run: () => {
      if (notices.undoable) void notices.act(notices.undoable)
      else if (canBringBack.value) bringBack()
    },
  },
  { key: 'b', does: 'Read by meter, ruler or eye', run: () => sheet.readOtherwise() },
  { key: 'n', does: 'The next lesson, once a verdict is kept', run: goOn },
  { key: 'x', does: 'After a walk-in: somebody else', run: () => (isWalkIn.value = false) },
])
</script>

<style scoped>
/* On a desk everything is in sight at once: a long sheet and a long verdict scroll inside their cards. */
.check {
  display: grid;
  grid-template: auto auto auto minmax(330px, 1fr) / minmax(0, 1fr);
}

.check > .page-head,
.check > .card {
  min-width: 0;
}

.board {
  padding: 10px 16px 10px;
}

.below {
  display: grid;
  grid-row: 4;
  grid-template-columns: minmax(0, 1.12fr) minmax(0, 1fr);
  gap: var(--gap);
  min-height: 0;
  margin-top: var(--gap);
}

.below > .card {
  min-height: 0;
  overflow-y: auto;
}

.sheet {
  padding: 10px 16px;
}

.proposal {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  font-size: 15px;
}

.chip {
  color: var(--brass-ink);
  font-weight: 600;
}

.waiting {
  margin: 6px 0;
  font-size: 22px;
}

@media (width > 900px) {
  .check.whole {
    height: calc(100dvh - 18px - 14px);
  }
}

@media (width <= 900px) {
  .check {
    display: block;
  }

  .below {
    grid-template-columns: minmax(0, 1fr);
  }

  .below > .sheet {
    max-height: 400px;
  }
}

/* Who is in the lesson stands in the line above. */
@media (width <= 560px) {
  .page-head {
    flex-wrap: nowrap;
  }

  .page-head .whose {
    display: none;
  }

  .below > .sheet {
    max-height: none;
  }
}
</style>
