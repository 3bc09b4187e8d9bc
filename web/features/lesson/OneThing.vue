<template>
  <p v-if="student.workingOn" class="thing" :class="{ narrow: isNarrow }">
    <span class="what"
      ><span class="soft">To work on, since {{ shortDay(student.workingOn.since) }}:</span>
      <strong dir="auto">{{ student.workingOn.workOn }}</strong></span
    >
    <ElButton size="small" @click="mend">Mended</ElButton>
  </p>
</template>

<script setup lang="ts">
import type { Student } from '#contracts'
import { UNDO, useNotices } from '../../stores/notices'
import { useOutbox } from '../../stores/outbox'
import { useStudio } from '../../stores/studio'
import { shortDay } from '../../words/dates'

/** The one thing that was agreed: in sight wherever the student is, until another is agreed or it is mended. */
const props = defineProps<{ student: Student; isNarrow?: boolean }>()
const notices = useNotices()
const outbox = useOutbox()
const studio = useStudio()

async function mend() {
  const { id, workingOn } = props.student
  if (!workingOn) return
  const params = { checkId: workingOn.checkId }
  const send = async (isMended: boolean) => {
    await outbox.send('checks.mend', { params, body: { isMended } }, { what: 'that it is mended' })
    await studio.loadStudent(id)
  }
  await send(true)
  notices.say(`Mended: ${workingOn.workOn}.`, { label: UNDO, run: () => send(false) })
}
</script>

<style scoped>
.thing {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  margin: 0 0 12px;
  padding: 9px 12px;
  border-radius: 8px;
  background: var(--brass-wash);
}

.what {
  display: flex;
  flex-wrap: wrap;
  gap: 0 7px;
}

.narrow {
  display: grid;
  gap: 5px;
  justify-items: start;
  margin: 6px 0 0;
  padding: 0;
  background: none;
  font-size: 14.5px;
  line-height: 1.3;
}

.narrow .soft {
  color: inherit;
  opacity: 0.8;
}

/* The rail lies across: a line beside the name. */
@media (width <= 900px) {
  .narrow {
    display: block;
    min-width: 0;
    margin: 0;
    overflow: hidden;
    text-overflow: ellipsis;
  }

  .narrow .what {
    display: inline;
  }

  .narrow .soft,
  .narrow .el-button {
    display: none;
  }
}

/* A phone has it on Today and in the file. */
@media (width <= 560px) {
  .narrow {
    display: none;
  }
}
</style>
