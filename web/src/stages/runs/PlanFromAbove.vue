<script setup lang="ts">
import { computed } from 'vue'

import type { Strip } from '../../api/client'

/** The way seen from above, one scale both ways. */
const props = defineProps<{ points: Strip['plan'] }>()

const box = computed(() => {
  const xs = props.points.map((p) => p.x)
  const ys = props.points.map((p) => p.y)
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const span = Math.max(x1 - x0, y1 - y0, 12)
  const pad = span * 0.07
  return { view: `${x0 - pad} ${-y1 - pad} ${x1 - x0 + 2 * pad} ${y1 - y0 + 2 * pad}`, span, x1, x0, y0, y1 }
})
const path = computed(() => props.points.map((p) => `${p.x},${-p.y}`).join(' '))
const feet = (inches: number) => `${Math.round(inches / 12)}′`
</script>

<template>
  <figure>
    <figcaption class="num">
      From above
      <span class="mute">{{ feet(box.x1 - box.x0) }} along, {{ feet(box.y1 - box.y0) }} across</span>
    </figcaption>
    <svg :viewBox="box.view" role="img" aria-label="The way from above, to scale">
      <polyline :points="path" :stroke-width="box.span * 0.014" />
      <circle :cx="points[0]?.x" :cy="-(points[0]?.y ?? 0)" :r="box.span * 0.026" />
    </svg>
  </figure>
</template>

<style scoped>
figure {
  margin: 12px 0 0;
}
figcaption {
  font-weight: 600;
  font-size: 15px;
}
figcaption .mute {
  font-weight: 400;
}
svg {
  display: block;
  width: 100%;
  max-height: 120px;
  background: var(--note-wash);
  margin-top: 4px;
}
polyline {
  fill: none;
  stroke: var(--chalk);
  stroke-linejoin: round;
}
circle {
  fill: var(--ink);
}
</style>
