<template>
  <svg viewBox="0 0 260 250" role="img" :aria-label="`How to measure: ${HOW[shown]}`">
    <!-- Outlines first, then the same without them: one hand, not five parts. -->
    <g v-for="part in ['outline', 'skin']" :key="part" :class="part">
      <rect
        v-for="finger in FINGERS"
        :key="finger.n"
        :x="finger.x"
        :y="finger.top"
        width="30"
        :height="170 - finger.top"
        rx="15"
      />
      <path :d="PALM" />
    </g>
    <text
      v-for="finger in FINGERS"
      :key="finger.n"
      :x="finger.x + 15"
      :y="finger.top + 58"
      text-anchor="middle"
    >
      {{ finger.n }}
    </text>
    <g v-if="shown === 'span' || shown === 'reach'" class="measure">
      <line x1="43" y1="62" x2="171" y2="42" />
      <circle cx="43" cy="62" r="5" />
      <circle cx="171" cy="42" r="5" />
      <path
        v-if="shown === 'reach'"
        d="M30 50 l-14 -10 m0 0 l2 10 m-2 -10 l10 1 M184 32 l16 -10 m0 0 l-10 0 m10 0 l-4 9"
      />
    </g>
    <g v-else-if="shown === 'length'" class="measure">
      <line x1="171" y1="30" x2="171" y2="150" />
      <line x1="158" y1="30" x2="184" y2="30" />
      <line x1="158" y1="150" x2="184" y2="150" />
    </g>
    <g v-else-if="shown === 'fingertip'" class="measure">
      <line x1="113" y1="22" x2="143" y2="22" />
      <line x1="113" y1="14" x2="113" y2="30" />
      <line x1="143" y1="14" x2="143" y2="30" />
    </g>
    <g v-else class="measure">
      <path d="M196 190 L222 152 L236 120" />
      <circle cx="222" cy="152" r="5" />
    </g>
  </svg>
  <p class="how">{{ HOW[shown] }}</p>
</template>

<script setup lang="ts">
import type { HandField } from './useHandForm'

/** The back of a left hand, and what is measured on it. */
defineProps<{ shown: HandField }>()

/** Left to right on the back of a left hand. */
const FINGERS = [
  { n: 4, x: 28, top: 48 },
  { n: 3, x: 70, top: 20 },
  { n: 2, x: 113, top: 8 },
  { n: 1, x: 156, top: 28 },
]
const PALM =
  'M28 128 Q26 236 78 240 L148 240 Q182 238 190 196 L236 138 Q246 120 230 112 Q218 108 210 122 L186 158 L186 128 Z'
const HOW: Record<HandField, string> = {
  span: 'Lay the hand on a ruler, open and without effort: from the middle of fingertip 1 to the middle of fingertip 4.',
  reach: 'The same with the fingers spread as far as they go without pain. Gently; stop at discomfort.',
  length: 'On the back of the hand, finger bent at the base: from the base knuckle to the tip.',
  fingertip: 'Across the second fingertip, where it stops the string.',
  thumb:
    'Let the thumb press lightly on a pencil: straight, or does it bend back at the tip joint (double-jointed)?',
}
</script>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-width: 230px;
  margin: 0 auto;
}

.outline {
  fill: none;
  stroke: var(--line-strong);
  stroke-width: 2.5;
}

.skin {
  fill: var(--card-sunk);
}

text {
  fill: var(--ink-soft);
  font: 600 15px var(--font-text);
}

.measure {
  fill: none;
  stroke: var(--jade);
  stroke-width: 2.5;
}

.measure circle {
  fill: var(--jade);
  stroke: none;
}

.how {
  margin-top: 6px;
  font-size: 14.5px;
}
</style>
