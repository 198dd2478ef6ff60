<script setup lang="ts">
import { computed } from 'vue'

import type { Figure } from '../api/client'
import ReasonMenu from './ReasonMenu.vue'

/** A margin as a level vial. The bubble moves from the middle (ample) to the red line (the limit). */
const props = defineProps<{ figure: Figure }>()

const share = computed(() => {
  const { value, limit, low_is_bad } = props.figure
  if (!limit) return 0
  return low_is_bad ? (value ? limit / value : 2) : value / limit
})
const over = computed(() => share.value > 1 + 1e-9)
const close = computed(() => !over.value && share.value > 0.9)
const LINE = 254
const bubble = computed(() => 135 + (LINE - 22 - 135) * Math.min(Math.max(share.value, 0), 1))
const beyond = computed(() => {
  const { value, limit, unit, beyond_text } = props.figure
  if (!over.value || limit == null || beyond_text) return beyond_text
  const by = value - limit
  return unit === 'deg' ? `${by.toFixed(0)}° over` : `${by.toFixed(1)} ${unit} over`
})
</script>

<template>
  <ReasonMenu :figure="figure">
    <div class="vial" :class="{ over, close, advised: figure.advised }">
      <div class="words num">
        <span>{{ figure.label }}</span>
        <b
          >{{ figure.text }}{{ figure.low_is_bad ? ', needs' : ' of' }} {{ figure.limit_text
          }}<template v-if="beyond">, {{ beyond }}</template></b
        >
      </div>
      <svg viewBox="0 0 270 20" preserveAspectRatio="none" aria-hidden="true">
        <rect x="1" y="1.5" width="268" height="17" rx="8.5" class="fluid" />
        <rect x="8" y="3.5" width="254" height="3.5" rx="1.8" class="shine" />
        <path d="M115 1.5v17M155 1.5v17" class="tick" />
        <path :d="`M${LINE} 1.5v17`" class="line" />
        <ellipse v-if="!over" :cx="bubble" cy="9.5" rx="14" ry="6.6" class="bubble" />
      </svg>
    </div>
  </ReasonMenu>
</template>

<style scoped>
.vial {
  padding: 3px 0 5px;
}
.words {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  font-size: 15px;
  font-weight: 500;
}
.words b {
  font-weight: 600;
}
.over b {
  color: var(--stop);
}
.close b {
  color: var(--check);
}
svg {
  display: block;
  width: 100%;
  height: 19px;
  margin-top: 2px;
}
.fluid {
  fill: var(--lime);
  stroke: var(--ink);
  stroke-width: 1.4;
}
.over .fluid {
  fill: var(--stop);
}
.advised.over b {
  color: var(--check);
}
.advised.over .fluid {
  fill: var(--check-mark);
}
.shine {
  fill: #fff;
  opacity: 0.35;
}
.tick {
  stroke: #20262a;
  stroke-width: 1.4;
}
.line {
  stroke: #c33b22;
  stroke-width: 2.4;
}
.over .line {
  stroke: #fff;
}
.bubble {
  fill: #fcfbf7;
  fill-opacity: 0.85;
  stroke: #7f8f10;
  stroke-width: 1.4;
}
</style>
