<template>
  <table class="ledger fit numbers">
    <caption class="visually-hidden">
      {{ caption }}
    </caption>
    <thead>
      <tr>
        <th scope="col">{{ head }}</th>
        <th scope="col" class="number">Frame, {{ unitName() }}</th>
        <th scope="col">For this hand</th>
        <th scope="col" class="number spare">Hand less frame, {{ unitName() }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.id" :class="[row.fit.fit, { own: row.isOwn }]">
        <th scope="row">
          <RouterLink
            v-if="row.instrumentId"
            :to="{ name: 'instrument', params: { instrumentId: row.instrumentId } }"
            >{{ row.name }}</RouterLink
          >
          <template v-else>{{ row.name }}</template>
          <span class="soft small"> {{ row.about }}</span>
        </th>
        <td class="number">
          <span v-for="frame in row.fit.frames" :key="frame.frame.id" class="frame">{{
            inUnit(frame.widthMm)
          }}</span>
        </td>
        <td>
          <span v-for="frame in row.fit.frames" :key="frame.frame.id" class="frame" :class="frame.fit">
            <span aria-hidden="true">{{ FIT_SIGNS[frame.fit] }}</span>
            {{ row.fit.frames.length > 1 ? `${FRAME_NAMES[frame.frame.id]}: ` : ''
            }}{{ FIT_NAMES[frame.fit] }}
          </span>
        </td>
        <td class="number spare">
          <span v-for="frame in row.fit.frames" :key="frame.frame.id" class="frame">{{
            signedInUnit(frame.spareMm)
          }}</span>
        </td>
      </tr>
    </tbody>
  </table>
  <p v-if="!isReachMeasured" class="soft small">
    The reach was not measured: taken as a tenth more than the comfortable span, from memory.
  </p>
</template>

<script setup lang="ts">
import { inUnit, signedInUnit, unitName } from '../../words/numbers'
import { FIT_NAMES, FIT_SIGNS } from '../../words/hand-fit'
import { FRAME_NAMES } from '../../words/patterns'
import type { FitRow } from './useFit'

/** Sizes or instruments against one hand. */
defineProps<{ caption: string; head: string; rows: readonly FitRow[]; isReachMeasured: boolean }>()
</script>

<style scoped>
.fit td,
.fit tbody th {
  padding: 5px 8px;
  vertical-align: top;
}

.frame {
  display: block;
}

.small {
  margin-left: 8px;
  font-size: 13.5px;
  font-weight: 400;
}

.own {
  background: var(--jade-wash);
}

.frame.comfortable {
  color: var(--jade);
  font-weight: 700;
}

.frame.too_big {
  color: var(--ink-soft);
}

@media (width <= 560px) {
  .spare {
    display: none;
  }

  .fit tbody th {
    white-space: normal;
  }

  .small {
    display: block;
    margin-left: 0;
  }
}
</style>
